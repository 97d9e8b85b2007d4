/** The connection to PostgreSQL, brought to the newest tables before use. */
import { Client } from 'pg';
import { Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import { defineModels } from './models';
import { isOutage } from './outage';
import * as firstTables from './migrations/0001-first-tables';
import * as whatIsGiven from './migrations/0002-what-is-given';
import * as heardSoFar from './migrations/0003-heard-so-far';
import * as shapes from './migrations/0004-shapes';
import * as whatIsConfirmed from './migrations/0005-what-is-confirmed';
import * as whatIsKept from './migrations/0006-what-is-kept';
import * as guesses from './migrations/0007-guesses';
import * as practiceRounds from './migrations/0008-practice-rounds';
import * as takes from './migrations/0009-takes';
import * as shelf from './migrations/0010-shelf';
import * as backups from './migrations/0011-backups';
import * as versionAsked from './migrations/0012-version-asked';
import * as settings from './migrations/0013-settings';
import * as parts from './migrations/0014-parts';
import * as partPowers from './migrations/0015-part-powers';

/** Names are fixed here, so that sources and builds record the same. */
const MIGRATIONS = [
  { name: '0001-first-tables', up: firstTables.up, down: firstTables.down },
  { name: '0002-what-is-given', up: whatIsGiven.up, down: whatIsGiven.down },
  { name: '0003-heard-so-far', up: heardSoFar.up, down: heardSoFar.down },
  { name: '0004-shapes', up: shapes.up, down: shapes.down },
  { name: '0005-what-is-confirmed', up: whatIsConfirmed.up, down: whatIsConfirmed.down },
  { name: '0006-what-is-kept', up: whatIsKept.up, down: whatIsKept.down },
  { name: '0007-guesses', up: guesses.up, down: guesses.down },
  { name: '0008-practice-rounds', up: practiceRounds.up, down: practiceRounds.down },
  { name: '0009-takes', up: takes.up, down: takes.down },
  { name: '0010-shelf', up: shelf.up, down: shelf.down },
  { name: '0011-backups', up: backups.up, down: backups.down },
  { name: '0012-version-asked', up: versionAsked.up, down: versionAsked.down },
  { name: '0013-settings', up: settings.up, down: settings.down },
  { name: '0014-parts', up: parts.up, down: parts.down },
  { name: '0015-part-powers', up: partPowers.up, down: partPowers.down },
];

/** Another server has made it: duplicate_database, or unique_violation when both did at once (PostgreSQL 15, appendix A). */
const MADE_MEANWHILE = ['42P04', '23505'];

async function createIfMissing(url: string): Promise<void> {
  const name = decodeURIComponent(new URL(url).pathname.slice(1));
  const admin = new URL(url);
  admin.pathname = '/postgres';
  const client = new Client({ connectionString: url });
  try {
    await client.connect();
  } catch (error) {
    const UNDEFINED_DATABASE = '3D000';
    if ((error as { code?: string }).code !== UNDEFINED_DATABASE) throw error;
    const maker = new Client({ connectionString: admin.href });
    await maker.connect();
    try {
      await maker.query(`CREATE DATABASE ${maker.escapeIdentifier(name)}`);
    } catch (error) {
      if (!MADE_MEANWHILE.includes((error as { code?: string }).code ?? '')) throw error;
    } finally {
      await maker.end();
    }
  } finally {
    await client.end();
  }
}

/** How long a database may take to come up, and how often it is asked meanwhile. */
const UP_WITHIN_MS = 60_000;
const ASK_EVERY_MS = 250;

/** A database that is starting or recovering is waited for. Rejects with the last error when it does not come up. */
async function waitFor(connect: () => Promise<void>): Promise<void> {
  for (const until = Date.now() + UP_WITHIN_MS; ;) {
    try {
      await connect();
      return;
    } catch (error) {
      if (!isOutage(error) || Date.now() > until) throw error;
      await new Promise((resolve) => setTimeout(resolve, ASK_EVERY_MS));
    }
  }
}

/** What one server holds while it makes the tables; the number is ours alone, the database is too. */
const MIGRATING_LOCK = 1;

/**
 * Brings the tables to the newest, all of it or nothing, and one server at a time: one that was killed over this may live on for a
 * moment beside the next. One connection, so that all that a migration asks stands in the one transaction.
 */
async function migrate(url: string): Promise<void> {
  const sequelize = new Sequelize(url, { dialect: 'postgres', logging: false, pool: { max: 1 } });
  const umzug = new Umzug({
    migrations: MIGRATIONS.map(({ name, up, down }) => ({
      name,
      up: () => up(sequelize),
      down: () => down(sequelize),
    })),
    storage: new SequelizeStorage({ sequelize, tableName: 'migrations' }),
    logger: undefined,
  });
  try {
    await sequelize.query('BEGIN');
    await sequelize.query(`SELECT pg_advisory_xact_lock(${MIGRATING_LOCK})`);
    await umzug.up();
    await sequelize.query('COMMIT');
  } finally {
    // What is not committed is undone with the connection.
    await sequelize.close();
  }
}

/** Creates the database when missing, migrates, and answers the connection pool. */
export async function openDatabase(url: string): Promise<Sequelize> {
  await waitFor(() => createIfMissing(url));
  await migrate(url);
  const sequelize = new Sequelize(url, { dialect: 'postgres', logging: false, pool: { max: 20 } });
  defineModels(sequelize);
  return sequelize;
}
