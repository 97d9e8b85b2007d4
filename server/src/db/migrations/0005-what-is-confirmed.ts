import type { Sequelize } from 'sequelize';

/** What the user has entered before an analysis is called confirmed; analyses that wait keep it. */
export async function up(sequelize: Sequelize): Promise<void> {
  await rename(sequelize, 'settled', 'confirmed');
}

export async function down(sequelize: Sequelize): Promise<void> {
  await rename(sequelize, 'confirmed', 'settled');
}

async function rename(sequelize: Sequelize, from: string, to: string): Promise<void> {
  await sequelize.query(
    `UPDATE analyses SET given = (given - :from) || jsonb_build_object(:to, given -> :from)
     WHERE jsonb_exists(given, :from)`,
    { replacements: { from, to } },
  );
}
