import type { Sequelize } from 'sequelize';

/**
 * The shelf: tags, what is searched, songs that wait in "Removed"; several recordings of a song, laid along the reference; who asked for
 * what; how long hands were on a song.
 */
export async function up(sequelize: Sequelize): Promise<void> {
  await sequelize.query(`
    CREATE EXTENSION IF NOT EXISTS pg_trgm;
    ALTER TABLE songs
      ADD COLUMN reference_id uuid,
      ADD COLUMN tags text[] NOT NULL DEFAULT '{}',
      ADD COLUMN words text NOT NULL DEFAULT '',
      ADD COLUMN taken_away integer NOT NULL DEFAULT 0,
      ADD COLUMN removed_at timestamptz;
    UPDATE songs s SET reference_id = (
      SELECT r.id FROM recordings r WHERE r.song_id = s.id ORDER BY r.id LIMIT 1);
    CREATE INDEX songs_words ON songs USING gin (words gin_trgm_ops);
    ALTER TABLE recordings ADD COLUMN added_at timestamptz NOT NULL DEFAULT now();
    CREATE TABLE alignments (
      recording_id uuid NOT NULL REFERENCES recordings ON DELETE CASCADE,
      reference_id uuid NOT NULL REFERENCES recordings ON DELETE CASCADE,
      algorithm text NOT NULL,
      result jsonb NOT NULL,
      PRIMARY KEY (recording_id, reference_id)
    );
    CREATE TABLE requests (
      id uuid PRIMARY KEY,
      song_id uuid NOT NULL REFERENCES songs ON DELETE CASCADE,
      initials text NOT NULL,
      wanted text NOT NULL,
      section text NOT NULL,
      format text,
      due_on date,
      done_at timestamptz,
      created_at timestamptz NOT NULL DEFAULT now()
    );
    CREATE INDEX requests_song ON requests (song_id);
    CREATE TABLE work_times (
      id uuid PRIMARY KEY,
      song_id uuid NOT NULL,
      step text NOT NULL,
      at timestamptz NOT NULL,
      seconds double precision NOT NULL
    );
    CREATE INDEX work_times_at ON work_times (at);
  `);
}

export async function down(sequelize: Sequelize): Promise<void> {
  await sequelize.query(`
    DROP TABLE work_times, requests, alignments;
    ALTER TABLE recordings DROP COLUMN added_at;
    ALTER TABLE songs DROP COLUMN reference_id, DROP COLUMN tags, DROP COLUMN words, DROP COLUMN taken_away,
      DROP COLUMN removed_at;
  `);
}
