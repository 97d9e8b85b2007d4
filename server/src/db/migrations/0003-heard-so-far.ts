import type { Sequelize } from 'sequelize';

/** What is known of a recording while its analysis still runs. */
export async function up(sequelize: Sequelize): Promise<void> {
  await sequelize.query('ALTER TABLE analyses ADD COLUMN so_far jsonb');
}

export async function down(sequelize: Sequelize): Promise<void> {
  await sequelize.query('ALTER TABLE analyses DROP COLUMN so_far');
}
