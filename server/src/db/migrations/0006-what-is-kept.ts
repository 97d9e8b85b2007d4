import type { Sequelize } from 'sequelize';

/** What the draft of an analysis has left as it was set by hand. */
export async function up(sequelize: Sequelize): Promise<void> {
  await sequelize.query(`ALTER TABLE analyses ADD COLUMN kept jsonb NOT NULL DEFAULT '[]'`);
}

export async function down(sequelize: Sequelize): Promise<void> {
  await sequelize.query('ALTER TABLE analyses DROP COLUMN kept');
}
