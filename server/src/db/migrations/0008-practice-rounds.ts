import type { Sequelize } from 'sequelize';

/** What was practised: it outlives the song that it was about. */
export async function up(sequelize: Sequelize): Promise<void> {
  await sequelize.query(`
    CREATE TABLE practice_rounds (
      id uuid PRIMARY KEY,
      at timestamptz NOT NULL,
      song_id uuid NOT NULL,
      item text NOT NULL,
      way text NOT NULL,
      is_whole boolean NOT NULL,
      percent integer NOT NULL,
      answer text,
      seconds double precision NOT NULL,
      heard jsonb
    )`);
  await sequelize.query('CREATE INDEX practice_rounds_song_at ON practice_rounds (song_id, at)');
}

export async function down(sequelize: Sequelize): Promise<void> {
  await sequelize.query('DROP TABLE practice_rounds');
}
