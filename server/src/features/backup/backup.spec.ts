import { createHash, randomUUID } from 'node:crypto';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { beforeAll, describe, expect, it } from 'vitest';
import * as z from 'zod';
import { ZipFile } from 'yazl';
import {
  broughtBackSchema,
  errorSchema,
  importAnswerSchema,
  lastBackupSchema,
  openSongSchema,
  songSummarySchema,
  type BroughtBack,
  type ImportAnswer,
  type OpenSong,
  type SongSummary,
} from '@wild-needle/contract';
import { startTestServer, type TestServer } from '../../test/database';
import { progressionFile } from '../../test/progression';
import { BACKUP_SCHEMA, MANIFEST } from './format';

/** What a server answers of every song: the shelf, each song, its versions and rounds. Its jobs are its own. */
async function everything(from: TestServer): Promise<unknown> {
  const songs = (await shelf(from)).map((song) => ({ ...song, job: null }));
  const each = await Promise.all(
    songs.map(async ({ id }) => [
      { ...(await open(from, id)), job: null },
      await (await from.ask(`/api/songs/${id}/versions`)).json(),
      await (await from.ask(`/api/practice-rounds?songId=${id}`)).json(),
    ]),
  );
  return { songs, each, requests: await (await from.ask('/api/requests')).json() };
}

const songs: ImportAnswer[] = [];
let whole: Buffer;
let one: Buffer;
let before: unknown;
let last: unknown;
const sounds = [1, 2, 3].map((n) => progressionFile([40 + n, 43, 45, 40 + 2 * n], 0.5));

const tell = (to: TestServer, path: string, method: string, body?: unknown): Promise<Response> =>
  to.ask(path, {
    method,
    ...(body !== undefined && {
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    }),
  });
const backup = async (from: TestServer, path = '/api/backup'): Promise<Buffer> =>
  Buffer.from(await (await from.ask(path)).arrayBuffer());
const send = (to: TestServer, bytes: Buffer): Promise<Response> =>
  to.ask('/api/backup', { method: 'POST', body: new Uint8Array(bytes) });
const bringBack = async (to: TestServer, bytes: Buffer): Promise<BroughtBack> =>
  broughtBackSchema.parse(await (await send(to, bytes)).json());
/** What is said of it; nothing of it may be on the shelf then. */
const refusal = (bytes: Buffer): Promise<string> =>
  elsewhere(async (other) => {
    const answer = await send(other, bytes);
    expect(answer.status).toBe(422);
    expect(await shelf(other)).toEqual([]);
    return errorSchema.parse(await answer.json()).message;
  });
const shelf = async (from: TestServer): Promise<SongSummary[]> =>
  z.array(songSummarySchema).parse(await (await from.ask('/api/songs?sort=title')).json());
const open = async (from: TestServer, id: string): Promise<OpenSong> =>
  openSongSchema.parse(await (await from.ask(`/api/songs/${id}`)).json());
const rename = async (to: TestServer, id: string, title: string): Promise<void> => {
  const { revision, document } = await open(to, id);
  const body = { baseRevision: revision, document: { ...document, title } };
  expect((await tell(to, `/api/songs/${id}/document`, 'PUT', body)).status).toBe(200);
};
/** A ZIP of these files. */
async function zipOf(files: Readonly<Record<string, Buffer | string>>): Promise<Buffer> {
  const zip = new ZipFile();
  for (const [name, content] of Object.entries(files)) zip.addBuffer(Buffer.from(content), name);
  zip.end();
  const parts: Buffer[] = [];
  for await (const part of zip.outputStream) parts.push(part as Buffer);
  return Buffer.concat(parts);
}
async function elsewhere<T>(work: (other: TestServer) => Promise<T>): Promise<T> {
  const other = await startTestServer({ jobs: 0 });
  try {
    return await work(other);
  } finally {
    await other.stop();
  }
}

beforeAll(async () => {
  // One server at a time: the models of a process belong to the one that came last.
  const server = await startTestServer({ jobs: 0 });
  for (const [n, sound] of sounds.entries()) {
    const query = new URLSearchParams({ fileName: `song ${n}.wav`, artist: 'Velvet Pylon' });
    const answer = await server.ask(`/api/recordings?${query.toString()}`, {
      method: 'POST',
      body: new Uint8Array(sound),
    });
    songs.push(importAnswerSchema.parse(await answer.json()));
  }
  const [first] = songs;
  await rename(server, first.songId, 'Kerosene Picnic');
  await tell(server, `/api/songs/${first.songId}/tags`, 'PUT', { tags: ['lesson'] });
  await tell(server, `/api/requests/${randomUUID()}`, 'PUT', {
    ...{ songId: first.songId, initials: 'S. A.', wanted: '', section: '', format: null },
    ...{ dueOn: '2026-12-20', isDone: false },
  });
  const round = { at: '2026-02-03T10:00:00.000Z', item: 'riff:a', way: 'whole', isWhole: true };
  await tell(server, `/api/practice-rounds/${randomUUID()}`, 'PUT', {
    ...{ ...round, songId: first.songId, percent: 75, answer: 'clean', seconds: 4, heard: null },
  });
  before = await everything(server);
  whole = await backup(server);
  one = await backup(server, `/api/songs/${first.songId}/backup`);
  last = await (await server.ask('/api/last-backup')).json();
  expect((await server.ask(`/api/songs/${randomUUID()}/backup`)).status).toBe(404);
  await server.stop();
});

describe('a backup', () => {
  it('is a ZIP that an independent program finds nothing wrong with', () => {
    const folder = mkdtempSync(join(tmpdir(), 'wn-backup-'));
    try {
      writeFileSync(join(folder, 'b.zip'), whole);
      // The standard library of Python reads every file and its CRC-32.
      const { stdout, status } = spawnSync('python3', ['-m', 'zipfile', '-t', join(folder, 'b.zip')], {
        encoding: 'utf8',
      });
      expect([status, stdout.trim()]).toEqual([0, 'Done testing']);
    } finally {
      rmSync(folder, { recursive: true });
    }
  });

  it('is remembered with its length', () => {
    expect(lastBackupSchema.parse(last)?.byteLength).toBe(whole.length);
  });

  it('brings everything back onto an empty shelf, equal to the byte', async () => {
    await elsewhere(async (other) => {
      expect(await bringBack(other, whole)).toMatchObject({ songs: 3, known: 0, beside: 0 });
      expect(await everything(other)).toEqual(before);
      for (const [n, { recordingId }] of songs.entries()) {
        const audio = await other.ask(`/api/recordings/${recordingId}/audio`);
        expect(Buffer.from(await audio.arrayBuffer()).equals(sounds[n])).toBe(true);
      }
    });
  });

  it('is known when it is brought back again, also twice at once, and where the shelf has gone on from it', async () => {
    await elsewhere(async (other) => {
      const both = await Promise.all([bringBack(other, whole), bringBack(other, whole)]);
      expect(both.map((b) => b.songs + b.known)).toEqual([3, 3]);
      expect(both.map((b) => b.songs).sort()).toEqual([0, 3]);
      await rename(other, songs[1].songId, 'Gone on');
      expect(await bringBack(other, whole)).toMatchObject({ songs: 0, known: 3, beside: 0 });
      expect(await shelf(other)).toHaveLength(3);
    });
  });

  it('puts a song of which the shelf has another version beside it, with its sound', async () => {
    const newer = await elsewhere(async (other) => {
      await bringBack(other, whole);
      await rename(other, songs[1].songId, 'Two');
      return backup(other);
    });
    await elsewhere(async (other) => {
      await bringBack(other, whole);
      await rename(other, songs[1].songId, 'One');
      expect(await bringBack(other, newer)).toMatchObject({ songs: 0, known: 2, beside: 1 });
      const beside = (await shelf(other)).find((s) => s.title.startsWith('Two (backup of'));
      const audio = await other.ask(`/api/recordings/${beside?.recordings[0]?.id ?? ''}/audio`);
      expect(Buffer.from(await audio.arrayBuffer()).equals(sounds[1])).toBe(true);
      expect((await open(other, songs[1].songId)).document.title).toBe('One');
      // Once more: it stands there.
      expect(await bringBack(other, newer)).toMatchObject({ known: 3, beside: 0 });
    });
  });

  it('of one song is that song with its sound, and nothing of the player', async () => {
    await elsewhere(async (other) => {
      expect(await bringBack(other, one)).toMatchObject({ songs: 1 });
      expect(await (await other.ask('/api/requests')).json()).toEqual([]);
    });
  });

  it('brings the sound to a song that had come back without', async () => {
    await elsewhere(async (other) => {
      await bringBack(other, whole);
      await other.services.sequelize.query('DELETE FROM recording_chunks');
      expect((await other.ask(`/api/recordings/${songs[2].recordingId}/audio`)).status).toBe(404);
      expect(await bringBack(other, whole)).toMatchObject({ known: 3 });
      expect((await other.ask(`/api/recordings/${songs[2].recordingId}/audio`)).status).toBe(200);
    });
  });
});

describe('a backup of an older program', () => {
  /** As it stored a song before the second guitar had its present name, and a log before settings were kept and versions asked for. */
  const OLD_STRUM = {
    ...{ id: 's', startTicks: 0, durationTicks: 960, frets: [{ string: 6, fret: 3 }] },
    ...{ palmMute: true, dead: false, trust: 'heard' },
  };
  const OLD = {
    schema: 'wild-needle/song@1',
    ...{ title: 'Old pier', artist: '', key: null, referenceOffsetCents: 0, recordings: [] },
    ...{ tuneTo: 'concert', loops: [] },
    tuning: { name: 'standard', stringsMidi: [40, 45, 50, 55, 59, 64], capo: 0 },
    grid: { beatsS: [0, 0.5, 1], bars: [{ beat: 0, beats: 2, unit: 4 }] },
    riffs: [
      {
        ...{ id: 'r', letter: 'A', name: 'R', bars: [{ beats: 4, unit: 4 }] },
        strums: [OLD_STRUM],
        second: [{ ...OLD_STRUM, id: 't', frets: [{ string: 5, fret: 5 }] }],
      },
    ],
    sections: [{ id: 'x', name: 'Verse', riffId: 'r', startBar: 0, passes: 1, transpose: 0 }],
  };

  it('is brought back as the present one writes it', async () => {
    const [id, at] = [randomUUID(), '2026-01-01T00:00:00.000Z'];
    const request = {
      ...{ id: randomUUID(), songId: id, initials: 'T. T.', wanted: 'all of it', section: '', format: null },
      ...{ dueOn: null, doneAt: null, createdAt: at },
    };
    const inside = {
      [`songs/${id}.json`]: JSON.stringify({
        ...{ id, updatedAt: at, revision: 1, tags: ['old'], takenAway: 0, isRemoved: false },
        ...{ referenceId: null, recordings: [], analyses: [] },
      }),
      [`songs/${id}.history.ndjson`]: `${JSON.stringify({ revision: 1, savedAt: at, document: OLD })}\n`,
      'log.json': JSON.stringify({
        ...{ shapes: [], guesses: [], practiceRounds: [], workTimes: [] },
        requests: [request],
      }),
    };
    const files = Object.fromEntries(
      Object.entries(inside).map(([name, text]) => {
        const sha256 = createHash('sha256').update(text).digest('hex');
        return [name, { byteLength: Buffer.byteLength(text), sha256 }];
      }),
    );
    const manifest = JSON.stringify({ schema: BACKUP_SCHEMA, madeAt: at, files });
    const bytes = await zipOf({ ...inside, [MANIFEST]: manifest });
    await elsewhere(async (other) => {
      expect(await bringBack(other, bytes)).toMatchObject({ songs: 1, known: 0, beside: 0 });
      const { document } = await open(other, id);
      expect(document.schema).toBe('wild-needle/song@2');
      expect(document.riffs[0]?.guitar2).toMatchObject([{ id: 't', frets: [{ string: 5, fret: 5 }] }]);
      expect((await shelf(other))[0]).toMatchObject({ title: 'Old pier', tags: ['old'] });
      const asked: unknown = await (await other.ask('/api/requests')).json();
      expect(asked).toMatchObject([{ id: request.id, version: null, sectionName: '' }]);
      expect(await (await other.ask('/api/settings')).json()).toBeNull();
    });
  });
});

describe('a file that is no backup', () => {
  it.each([
    ['cut', () => whole.subarray(0, whole.length - 2000)],
    ['text', () => Buffer.from('Salt on the Wire')],
    ['empty', () => Buffer.alloc(0)],
  ])('because it is %s, is told', async (_, bytes) => {
    expect(await refusal(bytes())).toMatch(/no backup of Wild Needle/);
  });

  it('because a byte of a recording was changed, is told by its checksum before anything is written', async () => {
    const changed = Buffer.from(whole);
    const at = changed.indexOf(sounds[0].subarray(2000, 2032));
    expect(at).toBeGreaterThan(0);
    changed[at] ^= 1;
    expect(await refusal(changed)).toMatch(/cut or changed/);
  });

  it('because a newer program made it, is told', async () => {
    const manifest = JSON.stringify({
      schema: 'wild-needle/backup@99',
      madeAt: '2030-01-01T00:00:00.000Z',
      files: {},
    });
    expect(await refusal(await zipOf({ [MANIFEST]: manifest }))).toMatch(/newer Wild Needle/);
    expect(await refusal(await zipOf({ [MANIFEST]: '{}' }))).toMatch(/no backup/);
    expect(await refusal(await zipOf({ 'notes.txt': 'hello' }))).toMatch(/no backup/);
  });

  it('with tricks in its names, files that nobody named, or one that is missing, is told', async () => {
    const manifest = (files: object): string =>
      JSON.stringify({ schema: BACKUP_SCHEMA, madeAt: '2026-01-01T00:00:00.000Z', files });
    const tricky = await zipOf({ [MANIFEST]: manifest({}), 'xx/xx/etc/passwd': 'root' });
    const renamed = Buffer.from(tricky.toString('latin1').replaceAll('xx/xx/', '../../'), 'latin1');
    expect(await refusal(renamed)).toMatch(/cut or changed|no backup/);
    expect(await refusal(tricky)).toMatch(/does not belong to it/);
    const missing = { 'songs/x.json': { byteLength: 1, sha256: 'a'.repeat(64) } };
    expect(await refusal(await zipOf({ [MANIFEST]: manifest(missing) }))).toMatch(/is missing/);
  });

  it('whose rows are not what they should be is told, and nothing of it is kept', async () => {
    const log = JSON.stringify({
      ...{ shapes: [], guesses: [], practiceRounds: [], requests: [] },
      workTimes: [{ id: randomUUID(), songId: 'x', step: 'dance', at: 'yesterday', seconds: -1 }],
    });
    const sha256 = createHash('sha256').update(log).digest('hex');
    const files = { 'log.json': { byteLength: Buffer.byteLength(log), sha256 } };
    const manifest = JSON.stringify({ schema: BACKUP_SCHEMA, madeAt: '2026-01-01T00:00:00.000Z', files });
    expect(await refusal(await zipOf({ [MANIFEST]: manifest, 'log.json': log }))).toMatch(/cut or changed/);
  });

  it('that would unpack to far more than it may is not unpacked', async () => {
    const zeros = Buffer.alloc(300_000_000);
    const manifest = JSON.stringify({
      schema: BACKUP_SCHEMA,
      madeAt: '2026-01-01T00:00:00.000Z',
      files: { 'log.json': { byteLength: zeros.length, sha256: 'a'.repeat(64) } },
    });
    const bomb = await zipOf({ [MANIFEST]: manifest, 'log.json': zeros });
    expect(bomb.length).toBeLessThan(1_000_000);
    expect(await refusal(bomb)).toMatch(/larger than such a file can be/);
  });
});
