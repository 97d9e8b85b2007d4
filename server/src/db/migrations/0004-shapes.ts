import type { Sequelize } from 'sequelize';

/** The player's own shapes: they belong to no song. */
export async function up(sequelize: Sequelize): Promise<void> {
  await sequelize.query(`
    CREATE TABLE shapes (
      id uuid PRIMARY KEY,
      name text NOT NULL,
      notes jsonb NOT NULL,
      created_at timestamptz NOT NULL DEFAULT now()
    )`);
}

export async function down(sequelize: Sequelize): Promise<void> {
  await sequelize.query('DROP TABLE shapes');
}
