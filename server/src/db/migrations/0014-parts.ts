import type { Sequelize } from 'sequelize';

/** The band taken apart, piece by piece, and how loud its parts are in a song. */
export async function up(sequelize: Sequelize): Promise<void> {
  await sequelize.query(`
    CREATE TABLE separations (
      recording_id uuid NOT NULL REFERENCES recordings ON DELETE CASCADE,
      engine text NOT NULL,
      status text NOT NULL,
      from_s double precision NOT NULL,
      pieces int NOT NULL,
      seconds_per_piece double precision,
      problem text,
      heartbeat_at timestamptz,
      PRIMARY KEY (recording_id, engine)
    );
    CREATE TABLE separation_pieces (
      recording_id uuid NOT NULL,
      engine text NOT NULL,
      piece int NOT NULL,
      bytes bytea NOT NULL,
      PRIMARY KEY (recording_id, engine, piece),
      FOREIGN KEY (recording_id, engine) REFERENCES separations ON DELETE CASCADE
    );
    ALTER TABLE songs ADD COLUMN part_mix jsonb;
  `);
}

export async function down(sequelize: Sequelize): Promise<void> {
  await sequelize.query(
    'ALTER TABLE songs DROP COLUMN part_mix; DROP TABLE separation_pieces; DROP TABLE separations',
  );
}
