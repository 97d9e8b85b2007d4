import type { Sequelize } from 'sequelize';

/** How loud each part of a piece is: what says that a band has no drums. Unknown of pieces from before. */
export async function up(sequelize: Sequelize): Promise<void> {
  await sequelize.query('ALTER TABLE separation_pieces ADD COLUMN powers jsonb');
}

export async function down(sequelize: Sequelize): Promise<void> {
  await sequelize.query('ALTER TABLE separation_pieces DROP COLUMN powers');
}
