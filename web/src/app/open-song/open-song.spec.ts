import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { OpenSong } from '@wild-needle/contract';
import { PLAIN_SONG, setTitle, type SongDocument } from '@wild-needle/core/riff';
import { OpenSongStore } from './open-song.store';

const ID = '3fa85f64-5717-4562-b3fc-2c963f66afa6';
const song = (revision: number, title: string): OpenSong => ({
  id: ID,
  revision,
  savedAt: '2026-01-01T00:00:00.000Z',
  document: { ...PLAIN_SONG, title },
  recording: null,
  job: null,
});

function setUp(): { store: InstanceType<typeof OpenSongStore>; http: HttpTestingController } {
  TestBed.resetTestingModule();
  TestBed.configureTestingModule({ providers: [provideHttpClient(), provideHttpClientTesting()] });
  return { store: TestBed.inject(OpenSongStore), http: TestBed.inject(HttpTestingController) };
}
function open(revision = 1, title = 'First'): ReturnType<typeof setUp> {
  const parts = setUp();
  parts.store.open(ID);
  parts.http.expectOne(`/api/songs/${ID}`).flush(song(revision, title));
  return parts;
}
/** What is kept on this computer, as stored. */
const kept = (): { baseRevision: number; document: SongDocument }[] =>
  Array.from({ length: localStorage.length }, (_, i) => localStorage.key(i)!)
    .filter((key) => key.startsWith(`wild-needle.unsaved.${ID}`))
    .map((key) => JSON.parse(localStorage.getItem(key)!) as { baseRevision: number; document: SongDocument });
const rename = (title: string) => (document: SongDocument) => setTitle(document, title, '');
const conflict = { code: 'conflict', message: 'changed', issues: [] };

beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
});
afterEach(() => vi.useRealTimers());

describe('open song', () => {
  it('saves a change by itself on the revision it was made on', () => {
    const { store, http } = open();
    store.change(rename('Second'));
    expect(store.saveStatus()).toBe('unsaved');
    expect(kept()).toMatchObject([{ baseRevision: 1, document: { title: 'Second' } }]);
    vi.advanceTimersByTime(500);
    const save = http.expectOne(`/api/songs/${ID}/document`);
    expect(save.request.body).toMatchObject({ baseRevision: 1, document: { title: 'Second' } });
    save.flush({ revision: 2, savedAt: '2026-01-01T00:00:00.000Z' });
    expect([store.saveStatus(), store.revision(), kept()]).toEqual(['saved', 2, []]);
  });

  it('saves what was changed while a save was on its way', () => {
    const { store, http } = open();
    store.change(rename('Second'));
    vi.advanceTimersByTime(500);
    const first = http.expectOne(`/api/songs/${ID}/document`);
    store.change(rename('Third'));
    first.flush({ revision: 2, savedAt: '2026-01-01T00:00:00.000Z' });
    vi.advanceTimersByTime(500);
    const second = http.expectOne(`/api/songs/${ID}/document`);
    expect(second.request.body).toMatchObject({ baseRevision: 2, document: { title: 'Third' } });
  });

  it('keeps the work and tries again when the server is away', () => {
    const { store, http } = open();
    store.change(rename('Second'));
    vi.advanceTimersByTime(500);
    http.expectOne(`/api/songs/${ID}/document`).error(new ProgressEvent('error'));
    expect(store.saveStatus()).toBe('failing');
    vi.advanceTimersByTime(3500);
    http.expectOne(`/api/songs/${ID}/document`).flush({ revision: 2, savedAt: '2026-01-01T00:00:00.000Z' });
    expect(store.saveStatus()).toBe('saved');
  });

  it('offers both versions after another window has saved, and keeps mine over theirs when asked', () => {
    const { store, http } = open();
    store.change(rename('Mine'));
    vi.advanceTimersByTime(500);
    http.expectOne(`/api/songs/${ID}/document`).flush(conflict, { status: 409, statusText: 'Conflict' });
    http.expectOne(`/api/songs/${ID}`).flush(song(2, 'Theirs'));
    expect([store.saveStatus(), store.theirs()?.document.title, store.document()?.title]).toEqual([
      'conflict',
      'Theirs',
      'Mine',
    ]);
    store.keepMine();
    vi.advanceTimersByTime(500);
    const save = http.expectOne(`/api/songs/${ID}/document`);
    expect(save.request.body).toMatchObject({ baseRevision: 2, document: { title: 'Mine' } });
  });

  it('brings back what a closed window had not saved', () => {
    const first = open();
    first.store.change(rename('Unsaved'));
    const { store, http } = open();
    expect(store.document()?.title).toBe('Unsaved');
    vi.advanceTimersByTime(500);
    http.expectOne(`/api/songs/${ID}/document`);
  });

  it('offers both when the song went on while the unsaved window was closed', () => {
    open().store.change(rename('Unsaved'));
    const { store } = open(5, 'Newer');
    expect([store.saveStatus(), store.document()?.title, store.theirs()?.document.title]).toEqual([
      'conflict',
      'Unsaved',
      'Newer',
    ]);
  });

  describe('that the server refuses', () => {
    const refusal = { code: 'invalid-request', message: 'document.title: Too long', issues: [] };
    const refuse = (http: HttpTestingController): void =>
      http.expectOne(`/api/songs/${ID}/document`).flush(refusal, { status: 400, statusText: 'Bad Request' });

    it('is told why, and is not asked again until it has changed', () => {
      const { store, http } = open();
      store.change(rename('Refused'));
      vi.advanceTimersByTime(500);
      refuse(http);
      expect([store.saveStatus(), store.refusal()]).toEqual(['refused', 'document.title: Too long']);
      vi.advanceTimersByTime(60_000);
      http.expectNone(`/api/songs/${ID}/document`);
      store.undo();
      expect([store.saveStatus(), store.refusal()]).toEqual(['unsaved', null]);
      vi.advanceTimersByTime(500);
      const save = http.expectOne(`/api/songs/${ID}/document`);
      expect(save.request.body).toMatchObject({ document: { title: 'First' } });
    });

    it('is asked once more at once when it has changed meanwhile', () => {
      const { store, http } = open();
      store.change(rename('Refused'));
      vi.advanceTimersByTime(500);
      const save = http.expectOne(`/api/songs/${ID}/document`);
      store.change(rename('Shorter'));
      save.flush(refusal, { status: 400, statusText: 'Bad Request' });
      vi.advanceTimersByTime(500);
      const again = http.expectOne(`/api/songs/${ID}/document`);
      expect(again.request.body).toMatchObject({ document: { title: 'Shorter' } });
    });

    it('keeps its changes through a reload', () => {
      const first = open();
      first.store.change(rename('Refused'));
      vi.advanceTimersByTime(500);
      refuse(first.http);
      const { store, http } = open();
      expect(store.document()?.title).toBe('Refused');
      vi.advanceTimersByTime(500);
      refuse(http);
      expect(store.saveStatus()).toBe('refused');
      expect(kept()).toMatchObject([{ document: { title: 'Refused' } }]);
    });

    it('keeps its copy while another window saves', () => {
      localStorage.setItem(
        `wild-needle.unsaved.${ID}.another-page`,
        JSON.stringify({ baseRevision: 1, keptAt: 5, document: { ...PLAIN_SONG, title: 'x'.repeat(300) } }),
      );
      const { store, http } = open();
      expect(store.unreadable()).toHaveLength(1);
      expect(store.document()?.title).toBe('First');
      store.change(rename('Second'));
      vi.advanceTimersByTime(500);
      http.expectOne(`/api/songs/${ID}/document`).flush({ revision: 2, savedAt: '2026-01-01T00:00:00.000Z' });
      expect(kept()).toMatchObject([{ document: { title: 'x'.repeat(300) } }]);
      store.forgetUnreadable(store.unreadable()[0]);
      expect([kept(), store.unreadable()]).toEqual([[], []]);
    });
  });

  it('takes over what programs of before have kept', () => {
    const { guitar2: _, ...older } = PLAIN_SONG;
    const document = { ...older, title: 'Older', schema: 'wild-needle/song@1', second: null };
    localStorage.setItem(`wild-needle.unsaved.${ID}`, JSON.stringify({ baseRevision: 1, document }));
    const { store } = open();
    expect(store.document()).toMatchObject({ title: 'Older', schema: PLAIN_SONG.schema });
    expect(kept()).toHaveLength(1);
  });

  it('goes on with the newest of several copies, and loses none', () => {
    for (const [page, keptAt] of [
      ['a', 2],
      ['b', 9],
      ['c', 4],
    ] as const) {
      localStorage.setItem(
        `wild-needle.unsaved.${ID}.${page}`,
        JSON.stringify({ baseRevision: 1, keptAt, document: { ...PLAIN_SONG, title: page } }),
      );
    }
    const { store } = open();
    expect(store.document()?.title).toBe('b');
    expect(
      kept()
        .map((c) => c.document.title)
        .sort(),
    ).toEqual(['a', 'b', 'c']);
  });

  it('undoes and redoes without limit, and forgets the redone after a new change', () => {
    const { store } = open();
    const titles = Array.from({ length: 50 }, (_, i) => `Title ${i}`);
    titles.forEach((title) => store.change(rename(title)));
    titles.forEach(() => store.undo());
    expect([store.document()?.title, store.canUndo()]).toEqual(['First', false]);
    store.redo();
    expect(store.document()?.title).toBe('Title 0');
    store.change(rename('Other'));
    expect(store.canRedo()).toBe(false);
  });
});
