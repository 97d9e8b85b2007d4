import type { Sequelize } from 'sequelize';

/** What the player prefers, as the browser that was used last has it: for a new browser, and for the backup. */
export async function up(sequelize: Sequelize): Promise<void> {
  await sequelize.query(`
    CREATE TABLE settings (
      id int PRIMARY KEY DEFAULT 1 CHECK (id = 1),
      value jsonb NOT NULL
    )
  `);
}

export async function down(sequelize: Sequelize): Promise<void> {
  await sequelize.query('DROP TABLE settings');
}
