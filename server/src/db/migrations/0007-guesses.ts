import type { Sequelize } from 'sequelize';

/** What the player's ear has named: it outlives the song that it was about. */
export async function up(sequelize: Sequelize): Promise<void> {
  await sequelize.query(`
    CREATE TABLE guesses (
      id uuid PRIMARY KEY,
      at timestamptz NOT NULL,
      song_id uuid NOT NULL,
      place text NOT NULL,
      guessed jsonb NOT NULL,
      heard jsonb NOT NULL
    )`);
  await sequelize.query('CREATE INDEX guesses_at ON guesses (at)');
}

export async function down(sequelize: Sequelize): Promise<void> {
  await sequelize.query('DROP TABLE guesses');
}
