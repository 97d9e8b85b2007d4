import { randomUUID } from 'node:crypto';
import { Client } from 'pg';
import { describe, expect, it } from 'vitest';
import { openDatabase } from './database';

const admin = process.env['WN_TEST_DATABASE_URL'] ?? '';

function freshUrl(): string {
  const url = new URL(admin);
  url.pathname = `/test_${randomUUID().replaceAll('-', '')}`;
  return url.href;
}

describe('opening a database that is not there', () => {
  it('is done once where three servers do it at the same moment', async () => {
    const url = freshUrl();
    const opened = await Promise.all([1, 2, 3].map(() => openDatabase(url)));
    const [rows] = await opened[0].query('SELECT name FROM migrations');
    expect(new Set(rows.map((row) => (row as { name: string }).name)).size).toBe(rows.length);
    expect(rows.length).toBeGreaterThan(0);
    await Promise.all(opened.map((one) => one.close()));
  });

  it('that fails half-way leaves no table, and is done once nothing is in the way', async () => {
    const url = freshUrl();
    await (await openDatabase(url)).close();
    const client = new Client({ connectionString: url });
    await client.connect();
    await client.query('DROP SCHEMA public CASCADE; CREATE SCHEMA public');
    // One of the last tables is there already.
    await client.query('CREATE TABLE settings (id integer)');
    await expect(openDatabase(url)).rejects.toThrow(/settings/);
    const { rows } = await client.query(`SELECT tablename FROM pg_tables WHERE schemaname = 'public'`);
    expect(rows).toEqual([{ tablename: 'settings' }]);
    await client.query('DROP TABLE settings');
    await client.end();
    await (await openDatabase(url)).close();
  });
});
