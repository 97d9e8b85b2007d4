import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { importAnswerSchema, instrumentsSchema, type Instruments } from '@wild-needle/contract';
import { PIECE_CHANNELS, WHOLE_BAND } from '@wild-needle/core/parts';
import { startTestServer, type TestServer } from '../../test/database';
import { toneFile } from '../../test/audio';

const JSON_TYPE = { 'Content-Type': 'application/json' };
const RATE = 48_000;

const pieceOf = (piece: number, bytes: string) => ({
  piece,
  bytes: Buffer.from(bytes),
  powers: { drums: 1, bass: 1, voice: 1, guitars: 1 },
});

async function importTone(
  server: TestServer,
  freqHz: number,
  seconds = 14,
): Promise<{ songId: string; recordingId: string }> {
  const answer = await server.ask(`/api/recordings?fileName=tone${freqHz}.wav`, {
    method: 'POST',
    body: new Uint8Array(toneFile('wav', seconds, freqHz)),
  });
  return importAnswerSchema.parse(await answer.json());
}

function createRemote(server: TestServer, recordingId: string) {
  const address = `/api/recordings/${recordingId}/instruments`;
  const read = async (answer: Promise<Response>): Promise<Instruments> =>
    instrumentsSchema.parse(await (await answer).json());
  return {
    now: () => read(server.ask(address)),
    takeApart: (fromS = 0, engine = 'rough') =>
      server.ask(address, { method: 'POST', headers: JSON_TYPE, body: JSON.stringify({ engine, fromS }) }),
    stop: () => read(server.ask(`${address}/stop`, { method: 'POST' })),
    remove: () => read(server.ask(address, { method: 'DELETE' })),
    piece: (piece: number) => server.ask(`${address}/rough/${piece}?rate=${RATE}`),
  };
}

describe('a band that is taken apart', () => {
  let server: TestServer;
  beforeAll(async () => {
    server = await startTestServer({ jobs: 1 });
  });
  afterAll(() => server.stop());

  it('begins where it is listened to, and its pieces add up to the recording', async () => {
    const { recordingId } = await importTone(server, 440);
    const remote = createRemote(server, recordingId);
    expect(await remote.now()).toMatchObject({ separations: [] });
    expect((await remote.takeApart(7)).status).toBe(202);
    await expect
      .poll(async () => (await remote.now()).separations[0].status, { timeout: 60_000 })
      .toBe('done');
    const [{ ready, pieces, byteLength, missing }] = (await remote.now()).separations;
    // What is missing can't be told of a rough one.
    expect(missing).toEqual([]);
    expect(pieces).toBe(3);
    expect([...ready].sort()).toEqual([0, 1, 2]);
    expect(byteLength).toBeGreaterThan(1000);

    const bytes = await (await remote.piece(1)).arrayBuffer();
    const samples = new Int16Array(bytes);
    expect(samples.length / PIECE_CHANNELS).toBe(Math.round(6.16 * RATE));
    // The tone of the recording, from 6 s and the margin before it on.
    const left = Float32Array.from({ length: samples.length / PIECE_CHANNELS }, (_, n) => {
      let sum = 0;
      for (let c = 0; c < PIECE_CHANNELS; c += 2) sum += samples[n * PIECE_CHANNELS + c];
      return sum / 32768;
    });
    const startS = 6 - 0.08;
    let [sine, cosine, power] = [0, 0, 0];
    for (let n = RATE; n < 5 * RATE; n++) {
      const phase = 2 * Math.PI * 440 * (startS + n / RATE);
      sine += left[n] * Math.sin(phase);
      cosine += left[n] * Math.cos(phase);
      power += left[n] ** 2;
    }
    // All of it is that tone, and not half a sample late.
    expect((2 * sine ** 2) / (4 * RATE)).toBeGreaterThan(0.99 * power);
    expect(Math.abs(cosine / sine)).toBeLessThan(0.02);
    expect((await remote.piece(9)).status).toBe(404);
  });

  it('is removed with all its pieces, and only that', async () => {
    const { recordingId } = await importTone(server, 120, 8);
    const remote = createRemote(server, recordingId);
    await remote.takeApart();
    await expect
      .poll(async () => (await remote.now()).separations[0].status, { timeout: 60_000 })
      .toBe('done');
    expect((await remote.remove()).separations).toEqual([]);
    expect((await remote.piece(0)).status).toBe(404);
    expect((await server.ask(`/api/recordings/${recordingId}/audio`)).status).toBe(200);
  });

  it('says what is not here, and refuses what makes no sense', async () => {
    const { recordingId } = await importTone(server, 130, 8);
    const remote = createRemote(server, recordingId);
    const { engines } = await remote.now();
    expect(engines.map(({ engine, isHere }) => [engine, isHere])).toEqual([
      ['network', false],
      ['rough', true],
    ]);
    const refused = await remote.takeApart(0, 'network');
    expect(refused.status).toBe(409);
    expect(await refused.json()).toMatchObject({
      message: expect.stringContaining('get:instruments') as string,
    });
    expect((await remote.takeApart(0, 'magic')).status).toBe(400);
    expect((await remote.takeApart(-1)).status).toBe(400);
    const nobody = createRemote(server, '00000000-0000-4000-8000-000000000000');
    expect((await nobody.takeApart()).status).toBe(404);
  });

  it('keeps how loud the parts are, for each song', async () => {
    const { songId } = await importTone(server, 140, 8);
    const mix = { ...WHOLE_BAND, levelsDb: { ...WHOLE_BAND.levelsDb, drums: -10 }, silent: ['bass'] };
    const address = `/api/songs/${songId}/parts`;
    expect(await (await server.ask(address)).json()).toEqual(WHOLE_BAND);
    const put = (body: unknown): Promise<Response> =>
      server.ask(address, { method: 'PUT', headers: JSON_TYPE, body: JSON.stringify(body) });
    expect((await put(mix)).status).toBe(204);
    expect(await (await server.ask(address)).json()).toEqual(mix);
    expect((await put({ ...mix, alone: 'kazoo' })).status).toBe(400);
    expect(await (await server.ask(address)).json()).toEqual(mix);
  });
});

describe('a band that waits', () => {
  let server: TestServer;
  beforeAll(async () => {
    server = await startTestServer({ jobs: 0 });
  });
  afterAll(() => server.stop());

  it('is gone on with from where its worker died', async () => {
    const { instruments, sequelize } = server.services;
    const { recordingId } = await importTone(server, 220);
    const remote = createRemote(server, recordingId);
    const task = { recordingId, engine: 'rough' } as const;
    await remote.takeApart(2);
    expect(await instruments.claim(task)).toBe(true);
    await instruments.addPiece(task, pieceOf(0, 'a piece'), 2);
    expect((await remote.now()).separations[0]).toMatchObject({
      status: 'running',
      ready: [0],
      secondsLeft: 4,
    });
    expect(await instruments.requeueStale()).toBe(0);
    await sequelize.query(`UPDATE separations SET heartbeat_at = now() - interval '1 minute'`);
    expect(await instruments.requeueStale()).toBe(1);
    expect((await remote.now()).separations[0]).toMatchObject({ status: 'queued', ready: [0] });
    // The dead worker, should it come back, finds that nobody waits for it.
    expect(await instruments.beat(task)).toBe(false);
  });

  it('goes to another place, stops, and goes on', async () => {
    const { instruments } = server.services;
    const { recordingId } = await importTone(server, 230);
    const remote = createRemote(server, recordingId);
    const task = { recordingId, engine: 'rough' } as const;
    await remote.takeApart(0);
    await instruments.claim(task);
    await remote.takeApart(13);
    expect(await instruments.wanted(task)).toMatchObject({ fromS: 13, pieces: 3 });
    expect((await remote.stop()).separations[0]).toMatchObject({ status: 'stopped' });
    expect(await instruments.wanted(task)).toBeNull();
    // A piece that comes late is let go of.
    await instruments.addPiece(task, pieceOf(1, 'late'), 1);
    expect((await remote.now()).separations[0].ready).toEqual([]);
    await remote.takeApart(0);
    expect((await remote.now()).separations[0]).toMatchObject({ status: 'queued' });
  });

  it('is stored once: what is rough goes when the network has all of it', async () => {
    const { instruments } = server.services;
    const { recordingId } = await importTone(server, 240);
    for (const engine of ['rough', 'network'] as const) {
      const task = { recordingId, engine };
      await instruments.takeApart(recordingId, { engine, fromS: 0 });
      await instruments.claim(task);
      await instruments.addPiece(task, pieceOf(0, engine), 1);
    }
    expect((await instruments.of(recordingId))?.separations.map((s) => s.engine)).toEqual([
      'network',
      'rough',
    ]);
    await instruments.finish({ recordingId, engine: 'network' });
    expect((await instruments.of(recordingId))?.separations.map((s) => s.engine)).toEqual(['network']);
  });

  it('has no drums where the network finds none in all of it', async () => {
    const { instruments } = server.services;
    const { recordingId } = await importTone(server, 250);
    const task = { recordingId, engine: 'network' } as const;
    await instruments.takeApart(recordingId, { engine: 'network', fromS: 0 });
    await instruments.claim(task);
    const missing = async () => (await instruments.of(recordingId))?.separations[0].missing;
    for (const piece of [0, 1, 2]) {
      const { powers, ...one } = pieceOf(piece, 'a piece');
      await instruments.addPiece(task, { ...one, powers: { ...powers, drums: piece === 2 ? 0 : 1e-6 } }, 1);
      expect(await missing()).toEqual([]);
    }
    await instruments.finish(task);
    expect(await missing()).toEqual(['drums']);
  });
});
