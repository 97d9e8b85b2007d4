import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { OpenSong } from '@wild-needle/contract';
import { PLAIN_SONG, setTitle, type SongDocument } from '@wild-needle/core/riff';
import { OpenSongStore } from './open-song.store';
import { readUnsaved } from './unsaved-copy';

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
    expect(readUnsaved(ID)).toMatchObject({ baseRevision: 1, document: { title: 'Second' } });
    vi.advanceTimersByTime(500);
    const save = http.expectOne(`/api/songs/${ID}/document`);
    expect(save.request.body).toMatchObject({ baseRevision: 1, document: { title: 'Second' } });
    save.flush({ revision: 2, savedAt: '2026-01-01T00:00:00.000Z' });
    expect([store.saveStatus(), store.revision(), readUnsaved(ID)]).toEqual(['saved', 2, null]);
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
