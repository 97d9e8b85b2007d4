import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { OpenSong } from '@wild-needle/contract';
import { PLAIN_SONG, setTitle, type SongDocument } from '@wild-needle/core/riff';
import { OpenSongStore } from './open-song.store';
import { UnsavedCopies, type UnsavedCopy } from './unsaved-copies';
import { FakeCopies } from './unsaved-copies.fake';

const ID = '3fa85f64-5717-4562-b3fc-2c963f66afa6';
const song = (revision: number, title: string): OpenSong => ({
  id: ID,
  revision,
  savedAt: '2026-01-01T00:00:00.000Z',
  document: { ...PLAIN_SONG, title },
  recording: null,
  recordings: [],
  job: null,
});

let copies: FakeCopies;
function setUp(): { store: InstanceType<typeof OpenSongStore>; http: HttpTestingController } {
  TestBed.resetTestingModule();
  copies.nextPage();
  TestBed.configureTestingModule({
    providers: [
      provideHttpClient(),
      provideHttpClientTesting(),
      { provide: UnsavedCopies, useValue: copies },
    ],
  });
  return { store: TestBed.inject(OpenSongStore), http: TestBed.inject(HttpTestingController) };
}
/** Answers that are there already have been taken in. */
const settled = (): Promise<unknown> => vi.advanceTimersByTimeAsync(0);
async function open(revision = 1, title = 'First'): Promise<ReturnType<typeof setUp>> {
  const parts = setUp();
  parts.store.open(ID);
  parts.http.expectOne(`/api/songs/${ID}`).flush(song(revision, title));
  await settled();
  return parts;
}
/** What is kept on this computer. */
const kept = (): UnsavedCopy[] => copies.all();
const rename = (title: string) => (document: SongDocument) => setTitle(document, title, '');
const conflict = { code: 'conflict', message: 'changed', issues: [] };

beforeEach(() => {
  vi.useFakeTimers();
  sessionStorage.clear();
  copies = new FakeCopies();
});
afterEach(() => vi.useRealTimers());

describe('open song', () => {
  it('saves a change by itself on the revision it was made on', async () => {
    const { store, http } = await open();
    store.change(rename('Second'));
    expect(store.saveStatus()).toBe('unsaved');
    expect(kept()).toMatchObject([{ baseRevision: 1, document: { title: 'Second' } }]);
    vi.advanceTimersByTime(500);
    const save = http.expectOne(`/api/songs/${ID}/document`);
    expect(save.request.body).toMatchObject({ baseRevision: 1, document: { title: 'Second' } });
    save.flush({ revision: 2, savedAt: '2026-01-01T00:00:00.000Z' });
    expect([store.saveStatus(), store.revision(), kept()]).toEqual(['saved', 2, []]);
  });

  it('keeps what was changed while the song was read anew', async () => {
    const { store, http } = await open();
    store.refresh();
    const reading = http.expectOne(`/api/songs/${ID}`);
    store.change(rename('Mine'));
    reading.flush(song(1, 'First'));
    await vi.waitFor(() => expect(store.document()?.title).toBe('Mine'));
    vi.advanceTimersByTime(500);
    const save = http.expectOne(`/api/songs/${ID}/document`);
    expect(save.request.body).toMatchObject({ baseRevision: 1, document: { title: 'Mine' } });
    store.undo();
    expect(store.document()?.title).not.toBe('Mine');
  });

  it('saves what was changed while a save was on its way', async () => {
    const { store, http } = await open();
    store.change(rename('Second'));
    vi.advanceTimersByTime(500);
    const first = http.expectOne(`/api/songs/${ID}/document`);
    store.change(rename('Third'));
    first.flush({ revision: 2, savedAt: '2026-01-01T00:00:00.000Z' });
    vi.advanceTimersByTime(500);
    const second = http.expectOne(`/api/songs/${ID}/document`);
    expect(second.request.body).toMatchObject({ baseRevision: 2, document: { title: 'Third' } });
  });

  it('keeps the work and tries again when the server is away', async () => {
    const { store, http } = await open();
    store.change(rename('Second'));
    vi.advanceTimersByTime(500);
    http.expectOne(`/api/songs/${ID}/document`).error(new ProgressEvent('error'));
    expect(store.saveStatus()).toBe('failing');
    vi.advanceTimersByTime(3500);
    http.expectOne(`/api/songs/${ID}/document`).flush({ revision: 2, savedAt: '2026-01-01T00:00:00.000Z' });
    expect(store.saveStatus()).toBe('saved');
  });

  it('offers both versions after another window has saved, and keeps mine over theirs when asked', async () => {
    const { store, http } = await open();
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
    // Theirs is not lost: it stands one step back.
    store.undo();
    expect(store.document()?.title).toBe('Theirs');
    store.redo();
    expect(store.document()?.title).toBe('Mine');
    http.match(`/api/songs/${ID}/document`);
  });

  it('can still undo what was done before the page was loaded anew', async () => {
    const first = await open();
    first.store.change(rename('Changed'));
    dispatchEvent(new Event('pagehide'));
    const { store } = await open(2, 'Changed');
    await vi.advanceTimersByTimeAsync(100);
    expect(store.canUndo()).toBe(true);
    store.undo();
    expect(store.document()?.title).not.toBe('Changed');
  });

  it('brings back what a closed window had not saved', async () => {
    const first = await open();
    first.store.change(rename('Unsaved'));
    const { store, http } = await open();
    expect(store.document()?.title).toBe('Unsaved');
    vi.advanceTimersByTime(500);
    http.expectOne(`/api/songs/${ID}/document`);
  });

  it('offers both when the song went on while the unsaved window was closed', async () => {
    (await open()).store.change(rename('Unsaved'));
    const { store } = await open(5, 'Newer');
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

    it('is told why, and is not asked again until it has changed', async () => {
      const { store, http } = await open();
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

    it('is asked once more at once when it has changed meanwhile', async () => {
      const { store, http } = await open();
      store.change(rename('Refused'));
      vi.advanceTimersByTime(500);
      const save = http.expectOne(`/api/songs/${ID}/document`);
      store.change(rename('Shorter'));
      save.flush(refusal, { status: 400, statusText: 'Bad Request' });
      vi.advanceTimersByTime(500);
      const again = http.expectOne(`/api/songs/${ID}/document`);
      expect(again.request.body).toMatchObject({ document: { title: 'Shorter' } });
    });

    it('keeps its changes through a reload', async () => {
      const first = await open();
      first.store.change(rename('Refused'));
      vi.advanceTimersByTime(500);
      refuse(first.http);
      const { store, http } = await open();
      expect(store.document()?.title).toBe('Refused');
      vi.advanceTimersByTime(500);
      refuse(http);
      expect(store.saveStatus()).toBe('refused');
      expect(kept()).toMatchObject([{ document: { title: 'Refused' } }]);
    });

    it('keeps what can not be shown until it is let go', async () => {
      const damaged = { page: 'damaged', text: '{}' };
      copies.unreadable = [damaged];
      const { store, http } = await open();
      expect([store.unreadable(), store.document()?.title]).toEqual([[damaged], 'First']);
      store.change(rename('Second'));
      vi.advanceTimersByTime(500);
      http.expectOne(`/api/songs/${ID}/document`).flush({ revision: 2, savedAt: '2026-01-01T00:00:00.000Z' });
      expect(copies.unreadable).toEqual([damaged]);
      store.forgetLeft(damaged);
      expect([copies.unreadable, store.unreadable()]).toEqual([[], []]);
    });
  });

  it('goes on with the newest of several versions, and offers the others', async () => {
    for (const title of ['a', 'b', 'c', 'First']) {
      copies.nextPage();
      await copies.keep(ID, { baseRevision: 1, document: { ...PLAIN_SONG, title } });
    }
    const { store } = await open();
    // What is as the server has it is no version of its own.
    expect([store.document()?.title, store.left().map((c) => c.document.title)]).toEqual(['c', ['b', 'a']]);
    store.showLeft(store.left()[0]);
    expect([store.document()?.title, store.left().map((c) => c.document.title)]).toEqual(['b', ['a']]);
    store.undo();
    expect(store.document()?.title).toBe('c');
    store.forgetLeft(store.left()[0]);
    expect(
      kept()
        .map((c) => c.document.title)
        .sort(),
    ).toEqual(['c']);
  });

  it('says when this browser keeps no copy', async () => {
    const { store } = await open();
    copies.hasRoom = false;
    store.change(rename('Second'));
    await settled();
    expect(store.isKept()).toBe(false);
    copies.hasRoom = true;
    store.change(rename('Third'));
    await settled();
    expect(store.isKept()).toBe(true);
  });

  it('knows its own save again whose answer was lost', async () => {
    const { store, http } = await open();
    store.change(rename('Second'));
    vi.advanceTimersByTime(500);
    http.expectOne(`/api/songs/${ID}/document`).error(new ProgressEvent('error'));
    store.change(rename('Third'));
    vi.advanceTimersByTime(4000);
    http.expectOne(`/api/songs/${ID}/document`).flush(conflict, { status: 409, statusText: 'Conflict' });
    http.expectOne(`/api/songs/${ID}`).flush(song(2, 'Second'));
    expect([store.saveStatus(), store.theirs()]).toEqual(['unsaved', null]);
    vi.advanceTimersByTime(500);
    const save = http.expectOne(`/api/songs/${ID}/document`);
    expect(save.request.body).toMatchObject({ baseRevision: 2, document: { title: 'Third' } });
  });

  it('says that it was removed, keeps the work and asks no more', async () => {
    const { store, http } = await open();
    const gone = { code: 'not-found', message: 'There is no such song.', issues: [] };
    store.change(rename('Second'));
    vi.advanceTimersByTime(500);
    http.expectOne(`/api/songs/${ID}/document`).flush(gone, { status: 404, statusText: 'Not Found' });
    store.change(rename('Third'));
    vi.advanceTimersByTime(60_000);
    http.expectNone(`/api/songs/${ID}/document`);
    expect([store.saveStatus(), kept().map((c) => c.document.title)]).toEqual(['removed', ['Third']]);
  });

  it('is refused for good by any answer that says no, with or without words', async () => {
    const { store, http } = await open();
    store.change(rename('Second'));
    vi.advanceTimersByTime(500);
    http.expectOne(`/api/songs/${ID}/document`).flush('no', { status: 418, statusText: 'No' });
    expect([store.saveStatus(), store.refusal()]).toEqual(['refused', 'It was refused (418).']);
  });

  it('waits for the database, says so, and opens by itself when it is back', async () => {
    const away = { code: 'unavailable', message: 'The database does not answer.', issues: [] };
    const { store, http } = setUp();
    store.open(ID);
    http.expectOne(`/api/songs/${ID}`).flush(away, { status: 503, statusText: 'Service Unavailable' });
    expect([store.status(), store.problem()]).toEqual(['failed', away.message]);
    vi.advanceTimersByTime(3500);
    http.expectOne(`/api/songs/${ID}`).flush(song(1, 'First'));
    await settled();
    expect(store.status()).toBe('open');
    store.change(rename('Second'));
    vi.advanceTimersByTime(500);
    http
      .expectOne(`/api/songs/${ID}/document`)
      .flush(away, { status: 503, statusText: 'Service Unavailable' });
    expect([store.saveStatus(), store.failure()]).toEqual(['failing', 'unavailable']);
  });

  it('undoes and redoes without limit, and forgets the redone after a new change', async () => {
    const { store } = await open();
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
