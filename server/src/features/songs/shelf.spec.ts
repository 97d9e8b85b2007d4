import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import * as z from 'zod';
import {
  createAnswerSchema,
  openSongSchema,
  removedSongSchema,
  requestSchema,
  songSummarySchema,
  workedSchema,
  type RemovedSong,
  type SongRequest,
  type SongSummary,
  type Worked,
} from '@wild-needle/contract';
import {
  PLAIN_RIFF,
  PLAIN_SECTION,
  PLAIN_SONG,
  PLAIN_STRUM,
  type SongDocument,
} from '@wild-needle/core/riff';
import { startTestServer, type TestServer } from '../../test/database';

let server: TestServer;

const tell = (path: string, method: string, body?: unknown): Promise<Response> =>
  server.ask(path, {
    method,
    ...(body !== undefined && {
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    }),
  });
const shelf = async (query = ''): Promise<SongSummary[]> =>
  z.array(songSummarySchema).parse(await (await server.ask(`/api/songs${query}`)).json());
const titles = async (query: string): Promise<string[]> => (await shelf(query)).map((s) => s.title);
const requests = async (): Promise<SongRequest[]> =>
  z.array(requestSchema).parse(await (await server.ask('/api/requests')).json());

/** A bar of power chords on the lowest string, named as a section. */
function song(title: string, frets: readonly number[], more: Partial<SongDocument> = {}): SongDocument {
  return {
    ...PLAIN_SONG,
    title,
    artist: 'Ostrich Committee',
    grid: { beatsS: [0, 0.5, 1, 1.5, 2], bars: [{ beat: 0, beats: 4, unit: 4 }] },
    riffs: [
      {
        ...PLAIN_RIFF,
        ...{ id: 'a', letter: 'A', name: 'Chug', bars: [{ beats: 4, unit: 4 }] },
        strums: frets.map((fret, n) => ({
          ...PLAIN_STRUM,
          ...{ id: `${n}`, startTicks: 960 * n, durationTicks: 960, trust: n === 0 ? 'checked' : 'heard' },
          frets: [
            { string: 6, fret },
            { string: 5, fret: fret + 2 },
          ],
        })),
      },
    ],
    sections: [
      { ...PLAIN_SECTION, id: 'v', name: 'Verse', riffId: 'a', startBar: 0, passes: 1, transpose: 0 },
    ],
    ...more,
  };
}

const create = async (document: SongDocument): Promise<string> =>
  createAnswerSchema.parse(await (await tell('/api/songs', 'POST', { document })).json()).songId;

const ids: Record<string, string> = {};

beforeAll(async () => {
  server = await startTestServer({ jobs: 0 });
  ids['choir'] = await create(song('Gravel Choir', [5, 8, 10]));
  ids['bus'] = await create(song('Late Bus Home', [0, 3, 5]));
  const strings = [38, 45, 50, 55, 59, 64];
  const dropped = { tuning: { name: 'drop-d', stringsMidi: strings, capo: 0 } };
  ids['anvil'] = await create(song('Anvil Weather', [2, 0], dropped));
});
afterAll(() => server.stop());

describe('the shelf', () => {
  it('says how far each step is, and which bars are checked', async () => {
    const choir = (await shelf()).find((s) => s.id === ids['choir']);
    expect(choir).toMatchObject({
      steps: { tuning: 1, sections: 1, riffs: 1, sheet: 0, practice: 0 },
      bars: [{ name: 'Verse', bars: 1, checkedBars: 0 }],
      toSettle: 2,
      unwritten: '',
      recordings: [],
      dueOn: null,
    });
    expect(choir?.steps.check).toBeCloseTo(1 / 3);
    expect(choir?.slowest).toEqual({ name: 'Chug', bpm: 0, ofBpm: 120 });
  });

  it.each([
    ['gravel', ['Gravel Choir']],
    ['drop d', ['Anvil Weather']],
    ['A5 C5 D5', ['Gravel Choir']],
    ['ostrich bus', ['Late Bus Home']],
    ['verse', ['Anvil Weather', 'Gravel Choir', 'Late Bus Home']],
    ['nobody', []],
    ["'; DROP TABLE songs; --", []],
  ])('finds %o', async (search, found) => {
    expect(await titles(`?sort=title&search=${encodeURIComponent(search)}`)).toEqual(found);
  });

  it('finds a tag, keeps it over a save, and lists a page at a time', async () => {
    expect((await tell(`/api/songs/${ids['bus']}/tags`, 'PUT', { tags: ['set list', 'slow'] })).status).toBe(
      204,
    );
    expect(await titles('?search=set%20list')).toEqual(['Late Bus Home']);
    const { document, revision } = openSongSchema.parse(
      await (await server.ask(`/api/songs/${ids['bus']}`)).json(),
    );
    await tell(`/api/songs/${ids['bus']}/document`, 'PUT', {
      baseRevision: revision,
      document: { ...document, title: 'Late Bus' },
    });
    expect(await titles('?search=set%20list')).toEqual(['Late Bus']);
    expect((await shelf('?search=late'))[0]?.tags).toEqual(['set list', 'slow']);
    expect(await titles('?sort=title&limit=1&offset=1')).toEqual(['Gravel Choir']);
    expect((await tell(`/api/songs/${ids['bus']}/tags`, 'PUT', { tags: [''] })).status).toBe(400);
    expect((await tell(`/api/songs/${randomUUID()}/tags`, 'PUT', { tags: [] })).status).toBe(404);
  });

  it('knows a sheet that was taken away, and that the song was changed since', async () => {
    const sheetOf = async (): Promise<number | undefined> => (await shelf('?search=anvil'))[0]?.steps.sheet;
    expect((await tell(`/api/songs/${ids['anvil']}/taken-away`, 'POST')).status).toBe(204);
    expect(await sheetOf()).toBe(1);
    const { document } = openSongSchema.parse(await (await server.ask(`/api/songs/${ids['anvil']}`)).json());
    await tell(`/api/songs/${ids['anvil']}/document`, 'PUT', { baseRevision: 1, document });
    expect(await sheetOf()).toBe(0.5);
  });

  it('knows what was played clean', async () => {
    const round = {
      at: '2026-02-03T10:00:00.000Z',
      item: 'riff:a',
      way: 'whole',
      isWhole: true,
      seconds: 4,
      heard: null,
    };
    for (const [percent, answer] of [
      [75, 'clean'],
      [100, 'slip'],
    ]) {
      await tell(`/api/practice-rounds/${randomUUID()}`, 'PUT', {
        ...round,
        songId: ids['choir'],
        percent,
        answer,
      });
    }
    expect((await shelf('?search=gravel'))[0]).toMatchObject({
      steps: { practice: 0.75 },
      slowest: { name: 'Chug', bpm: 90, ofBpm: 120 },
    });
  });
});

describe('requests', () => {
  const asked = {
    initials: 'M. O.',
    wanted: 'bridge only',
    section: '',
    format: 'sheet',
    isDone: false,
  } as const;

  it('stand by their day, and put their song first', async () => {
    const [soon, later, never] = [randomUUID(), randomUUID(), randomUUID()];
    await tell(`/api/requests/${never}`, 'PUT', { ...asked, songId: ids['choir'], dueOn: null });
    await tell(`/api/requests/${later}`, 'PUT', { ...asked, songId: ids['choir'], dueOn: '2026-12-20' });
    await tell(`/api/requests/${soon}`, 'PUT', { ...asked, songId: ids['anvil'], dueOn: '2026-12-12' });
    expect((await requests()).map((r) => r.id)).toEqual([soon, later, never]);
    expect(await titles('?sort=due')).toEqual(['Anvil Weather', 'Gravel Choir', 'Late Bus']);
    // Ticked off: it goes to the foot, and its song is not due any more.
    await tell(`/api/requests/${soon}`, 'PUT', {
      ...asked,
      songId: ids['anvil'],
      dueOn: '2026-12-12',
      isDone: true,
    });
    const after = await requests();
    expect(after.map((r) => r.id)).toEqual([later, never, soon]);
    expect(after[2]?.doneAt).not.toBeNull();
    expect((await shelf('?sort=due'))[0]?.title).toBe('Gravel Choir');
    expect((await tell(`/api/requests/${soon}`, 'DELETE')).status).toBe(204);
    expect(await requests()).toHaveLength(2);
  });

  it('name the section as it is called now, and a version of the tab', async () => {
    const id = randomUUID();
    const { document, revision } = openSongSchema.parse(
      await (await server.ask(`/api/songs/${ids['choir']}`)).json(),
    );
    const [part] = document.sections;
    const body = { ...asked, songId: ids['choir'], section: part?.id, version: 'two-strings', dueOn: null };
    expect((await tell(`/api/requests/${id}`, 'PUT', body)).status).toBe(204);
    const named = async (): Promise<SongRequest | undefined> => (await requests()).find((r) => r.id === id);
    expect(await named()).toMatchObject({ sectionName: part?.name, version: 'two-strings' });
    const sections = document.sections.map((s) => (s.id === part?.id ? { ...s, name: 'Lift' } : s));
    await tell(`/api/songs/${ids['choir']}/document`, 'PUT', {
      baseRevision: revision,
      document: { ...document, sections },
    });
    expect((await named())?.sectionName).toBe('Lift');
    await tell(`/api/requests/${id}`, 'PUT', { ...body, section: 'gone' });
    expect((await named())?.sectionName).toBe('');
    await tell(`/api/requests/${id}`, 'DELETE');
  });

  it('need a song, initials, and a day that there is', async () => {
    const id = randomUUID();
    expect(
      (await tell(`/api/requests/${id}`, 'PUT', { ...asked, songId: randomUUID(), dueOn: null })).status,
    ).toBe(404);
    for (const wrong of [{ initials: '' }, { dueOn: '2026-02-31' }, { format: 'wax' }]) {
      const body = { ...asked, songId: ids['choir'], dueOn: null, ...wrong };
      expect((await tell(`/api/requests/${id}`, 'PUT', body)).status).toBe(400);
    }
  });
});

describe('time worked', () => {
  it('is summed by day, song and step, each stretch once', async () => {
    const [one, two] = [randomUUID(), randomUUID()];
    const stretch = { songId: ids['choir'], step: 'riffs', at: '2026-11-24T12:00:00.000Z', seconds: 55 };
    for (const id of [one, one, two]) await tell(`/api/work-times/${id}`, 'PUT', stretch);
    await tell(`/api/work-times/${randomUUID()}`, 'PUT', { ...stretch, step: 'check', seconds: 30 });
    const worked: Worked[] = z
      .array(workedSchema)
      .parse(await (await server.ask('/api/work-times?since=2026-11-24T00:00:00.000Z')).json());
    expect(worked.map(({ step, seconds, title }) => [step, seconds, title])).toEqual([
      ['check', 30, 'Gravel Choir'],
      ['riffs', 110, 'Gravel Choir'],
    ]);
    expect((await tell(`/api/work-times/${one}`, 'PUT', { ...stretch, seconds: 90_000 })).status).toBe(400);
  });
});

describe('a removed song', () => {
  const removed = async (): Promise<RemovedSong[]> =>
    z.array(removedSongSchema).parse(await (await server.ask('/api/removed-songs')).json());

  it('is off the shelf, can be brought back, and is gone after a month', async () => {
    const id = ids['bus'] ?? '';
    expect((await tell(`/api/songs/${id}`, 'DELETE')).status).toBe(204);
    expect((await tell(`/api/songs/${id}`, 'DELETE')).status).toBe(404);
    expect((await server.ask(`/api/songs/${id}`)).status).toBe(404);
    // A window that has it open still is told, and keeps what it has.
    const late = { baseRevision: 2, document: song('Late', [1]) };
    expect((await tell(`/api/songs/${id}/document`, 'PUT', late)).status).toBe(404);
    expect(await removed()).toMatchObject([{ id, title: 'Late Bus', byteLength: 0 }]);
    await tell(`/api/removed-songs/${id}/bring-back`, 'POST');
    expect(await titles('?search=late')).toEqual(['Late Bus']);

    await tell(`/api/songs/${id}`, 'DELETE');
    const inDays = (days: number): Date => new Date(Date.now() + days * 24 * 3600 * 1000);
    await server.services.removed.clear(inDays(29));
    expect(await removed()).toHaveLength(1);
    await server.services.removed.clear(inDays(31));
    expect(await removed()).toHaveLength(0);
  });

  it('can be removed for good at once, but never from the shelf', async () => {
    const id = ids['anvil'] ?? '';
    expect((await tell(`/api/removed-songs/${id}`, 'DELETE')).status).toBe(404);
    await tell(`/api/songs/${id}`, 'DELETE');
    expect((await tell(`/api/removed-songs/${id}`, 'DELETE')).status).toBe(204);
    expect(await removed()).toHaveLength(0);
  });
});
