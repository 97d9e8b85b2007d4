import type { Sequelize } from 'sequelize';

/** Takes that are being recorded, piece by piece, and those that nobody has kept or thrown away yet. */
export async function up(sequelize: Sequelize): Promise<void> {
  await sequelize.query(`
    CREATE TABLE takes (
      id uuid PRIMARY KEY,
      started_at timestamptz NOT NULL,
      sample_rate integer NOT NULL
    )`);
  await sequelize.query(`
    CREATE TABLE take_pieces (
      take_id uuid NOT NULL REFERENCES takes ON DELETE CASCADE,
      seq integer NOT NULL,
      bytes bytea NOT NULL,
      came_at timestamptz NOT NULL,
      PRIMARY KEY (take_id, seq)
    )`);
}

export async function down(sequelize: Sequelize): Promise<void> {
  await sequelize.query('DROP TABLE take_pieces');
  await sequelize.query('DROP TABLE takes');
}
