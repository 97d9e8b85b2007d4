import type { Sequelize } from 'sequelize';

/** Songs with every saved revision, recordings as chunks, analyses with their results. */
export async function up(sequelize: Sequelize): Promise<void> {
  await sequelize.query(`
    CREATE TABLE songs (
      id uuid PRIMARY KEY,
      title text NOT NULL,
      artist text NOT NULL,
      revision integer NOT NULL CHECK (revision >= 1),
      summary jsonb NOT NULL,
      updated_at timestamptz NOT NULL
    );
    CREATE TABLE song_revisions (
      song_id uuid NOT NULL REFERENCES songs ON DELETE CASCADE,
      revision integer NOT NULL,
      document jsonb NOT NULL,
      saved_at timestamptz NOT NULL,
      PRIMARY KEY (song_id, revision)
    );
    CREATE TABLE recordings (
      id uuid PRIMARY KEY,
      song_id uuid NOT NULL REFERENCES songs ON DELETE CASCADE,
      file_name text NOT NULL,
      sha256 char(64) NOT NULL UNIQUE,
      byte_length bigint NOT NULL,
      codec text NOT NULL,
      channels integer NOT NULL,
      sample_rate integer NOT NULL,
      duration_s double precision NOT NULL,
      envelope bytea NOT NULL
    );
    CREATE INDEX recordings_song ON recordings (song_id);
    CREATE TABLE recording_chunks (
      recording_id uuid NOT NULL REFERENCES recordings ON DELETE CASCADE DEFERRABLE INITIALLY DEFERRED,
      seq integer NOT NULL,
      bytes bytea NOT NULL,
      PRIMARY KEY (recording_id, seq)
    );
    -- Audio does not compress: EXTERNAL reads a range without unpacking anything.
    ALTER TABLE recording_chunks ALTER COLUMN bytes SET STORAGE EXTERNAL;
    CREATE TABLE analyses (
      id uuid PRIMARY KEY,
      recording_id uuid NOT NULL REFERENCES recordings ON DELETE CASCADE,
      status text NOT NULL CHECK (status IN ('queued', 'running', 'done', 'failed', 'cancelled')),
      share double precision NOT NULL,
      doing text NOT NULL,
      problem jsonb,
      algorithm text,
      result jsonb,
      heartbeat_at timestamptz,
      created_at timestamptz NOT NULL DEFAULT now()
    );
    CREATE INDEX analyses_recording ON analyses (recording_id, created_at DESC);
  `);
}

export async function down(sequelize: Sequelize): Promise<void> {
  await sequelize.query('DROP TABLE analyses, recording_chunks, recordings, song_revisions, songs');
}
