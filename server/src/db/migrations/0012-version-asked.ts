import type { Sequelize } from 'sequelize';

/** Which version of the tab somebody asks for. */
export async function up(sequelize: Sequelize): Promise<void> {
  await sequelize.query('ALTER TABLE requests ADD COLUMN version text');
}

export async function down(sequelize: Sequelize): Promise<void> {
  await sequelize.query('ALTER TABLE requests DROP COLUMN version');
}
