import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { toneFile } from '../test/audio';
import { startTestServer, type TestServer } from '../test/database';
import * as whatIsConfirmed from './migrations/0005-what-is-confirmed';

describe('an analysis that waits through an update of the program', () => {
  let server: TestServer;
  beforeAll(async () => {
    server = await startTestServer({ jobs: 0 });
    await server.ask('/api/recordings?fileName=tone.wav', {
      method: 'POST',
      body: new Uint8Array(toneFile('wav', 2)),
    });
  });
  afterAll(() => server.stop());

  it('keeps what the user has confirmed, there and back', async () => {
    const { sequelize } = server.services;
    const given = async (): Promise<unknown> => {
      const [rows] = await sequelize.query('SELECT given FROM analyses');
      return (rows as { given: unknown }[])[0].given;
    };
    const confirmed = { referenceCents: 3, spans: [], strums: [] };
    const tuning = { name: 'x', stringsMidi: [40], capo: 0 };
    await sequelize.query('UPDATE analyses SET given = :given', {
      replacements: { given: JSON.stringify({ tuning, settled: confirmed }) },
    });
    await whatIsConfirmed.up(sequelize);
    expect(await given()).toEqual({ tuning, confirmed });
    await whatIsConfirmed.down(sequelize);
    expect(await given()).toEqual({ tuning, settled: confirmed });
  });
});
