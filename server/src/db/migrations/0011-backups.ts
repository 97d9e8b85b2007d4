import type { Sequelize } from 'sequelize';

/** When the last backup was taken; the same sound may belong to two songs, as a song and its other version brought back beside it. */
export async function up(sequelize: Sequelize): Promise<void> {
  await sequelize.query(`
    CREATE TABLE backups (at timestamptz PRIMARY KEY, byte_length bigint NOT NULL);
    ALTER TABLE recordings DROP CONSTRAINT recordings_sha256_key;
    CREATE UNIQUE INDEX recordings_song_sha256 ON recordings (song_id, sha256);
    CREATE INDEX recordings_sha256 ON recordings (sha256);
  `);
}

export async function down(sequelize: Sequelize): Promise<void> {
  await sequelize.query(`
    DROP TABLE backups;
    DROP INDEX recordings_song_sha256, recordings_sha256;
    ALTER TABLE recordings ADD CONSTRAINT recordings_sha256_key UNIQUE (sha256);
  `);
}
