import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { PLAIN_SONG, type SongDocument } from '@wild-needle/core/riff';
import { UnsavedCopies, type UnsavedCopy } from './unsaved-copies';

const ID = '3fa85f64-5717-4562-b3fc-2c963f66afa6';
const titled = (title: string): SongDocument => ({ ...PLAIN_SONG, title });
const copy = (title: string): UnsavedCopy => ({ baseRevision: 1, document: titled(title) });
const titles = async (page: UnsavedCopies): Promise<string[]> =>
  (await page.left(ID)).readable.map((c) => c.document.title);

/** Locks of pages that are open; jsdom has none. */
let held: { name: string }[] = [];

beforeEach(() => {
  globalThis.indexedDB = new IDBFactory();
  localStorage.clear();
  held = [];
  vi.stubGlobal('navigator', {
    locks: {
      request: (name: string) => held.push({ name }),
      query: () => Promise.resolve({ held }),
    },
  });
});
afterEach(() => vi.unstubAllGlobals());

describe('unsaved copies', () => {
  it('are found by the next page when theirs has gone, newest first', async () => {
    const [first, second] = [new UnsavedCopies(), new UnsavedCopies()];
    expect(await first.keep(ID, copy('Older'))).toBe(true);
    await new Promise((resolve) => setTimeout(resolve, 2));
    expect(await second.keep(ID, copy('Newer'))).toBe(true);
    expect(await second.keep('another-song', copy('Other'))).toBe(true);
    held = [];
    expect(await titles(new UnsavedCopies())).toEqual(['Newer', 'Older']);
  });

  it('of windows that are open stay theirs', async () => {
    const first = new UnsavedCopies();
    await first.keep(ID, copy('Open'));
    const second = new UnsavedCopies();
    expect(await titles(second)).toEqual([]);
    await second.keep(ID, copy('Mine'));
    await second.drop(ID);
    held = [];
    expect(await titles(new UnsavedCopies())).toEqual(['Open']);
  });

  it('are one per window, its newest', async () => {
    const page = new UnsavedCopies();
    await Promise.all([page.keep(ID, copy('1')), page.keep(ID, copy('2')), page.keep(ID, copy('3'))]);
    held = [];
    expect(await titles(new UnsavedCopies())).toEqual(['3']);
  });

  it('that can not be shown are kept until they are let go', async () => {
    const first = new UnsavedCopies();
    await first.keep(ID, copy('x'.repeat(300)));
    held = [];
    const second = new UnsavedCopies();
    const { readable, unreadable } = await second.left(ID);
    expect(readable).toEqual([]);
    expect(JSON.parse(unreadable[0].text)).toMatchObject({ document: { title: 'x'.repeat(300) } });
    await second.forget(ID, unreadable[0].page);
    expect((await second.left(ID)).unreadable).toEqual([]);
  });

  it('of older programs are taken along, damaged ones too', async () => {
    const { guitar2: _, ...older } = titled('Older');
    const document = { ...older, schema: 'wild-needle/song@1', second: null };
    localStorage.setItem(`wild-needle.unsaved.${ID}`, JSON.stringify({ baseRevision: 1, document }));
    localStorage.setItem(`wild-needle.unsaved.${ID}.page`, '{"half of a');
    const { readable, unreadable } = await new UnsavedCopies().left(ID);
    expect(readable.map((c) => [c.document.title, c.document.schema])).toEqual([
      ['Older', PLAIN_SONG.schema],
    ]);
    expect(unreadable[0].text).toContain('half of a');
    expect(localStorage.length).toBe(0);
  });

  it('say so where storage is forbidden or full', async () => {
    vi.stubGlobal('indexedDB', {
      open: () => {
        throw new DOMException('forbidden', 'SecurityError');
      },
    });
    const page = new UnsavedCopies();
    expect(await page.keep(ID, copy('Lost'))).toBe(false);
    expect(await page.left(ID)).toEqual({ readable: [], unreadable: [] });
    await page.drop(ID);
    vi.stubGlobal('indexedDB', new IDBFactory());
    const full = new UnsavedCopies();
    await full.left(ID);
    vi.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
    expect(await full.keep(ID, copy('Lost'))).toBe(false);
    vi.restoreAllMocks();
  });
});
