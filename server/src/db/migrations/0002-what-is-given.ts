import type { Sequelize } from 'sequelize';

/** What the user has entered before an analysis: the tuning, strums that are settled. */
export async function up(sequelize: Sequelize): Promise<void> {
  await sequelize.query('ALTER TABLE analyses ADD COLUMN given jsonb');
}

export async function down(sequelize: Sequelize): Promise<void> {
  await sequelize.query('ALTER TABLE analyses DROP COLUMN given');
}
