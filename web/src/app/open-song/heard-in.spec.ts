import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { of, Subject, throwError, type Observable } from 'rxjs';
import { beforeEach, describe, expect, it } from 'vitest';
import type { Recording, RecordingAlignment } from '@wild-needle/contract';
import { PLAIN_SONG, type SongDocument } from '@wild-needle/core/riff';
import { Api } from '../api/api';
import { HeardIn } from './heard-in';
import { OpenSongStore } from './open-song.store';

const recording = (id: string, durationS: number): Recording => ({
  ...{ id, durationS, fileName: `${id}.flac`, byteLength: 1, codec: 'flac', channels: 2, sampleRate: 44100 },
});
const ALBUM = recording('album', 60);
const LIVE = recording('live', 70);
const LAID: RecordingAlignment = {
  belongs: true,
  semitones: 1,
  runs: [
    [
      [0, 4],
      [60, 64],
    ],
  ],
  likeness: 0.9,
  share: 1,
};

describe('the recording that sounds', () => {
  let heardIn: HeardIn;
  let answer: Observable<RecordingAlignment>;
  let document: SongDocument;
  const reference = signal<Recording | null>(ALBUM);

  beforeEach(() => {
    TestBed.resetTestingModule();
    reference.set(ALBUM);
    document = { ...PLAIN_SONG, grid: { beatsS: [1, 2], bars: [] } };
    TestBed.configureTestingModule({
      providers: [
        { provide: Api, useValue: { alignment: () => answer } },
        {
          provide: OpenSongStore,
          useValue: {
            songId: signal('song'),
            recording: reference,
            recordings: signal([ALBUM, LIVE]),
            change: (change: (d: SongDocument) => SongDocument) => (document = change(document)),
          },
        },
      ],
    });
    heardIn = TestBed.inject(HeardIn);
    TestBed.tick();
  });

  it('is the reference, and the next one at the same place of the needle', async () => {
    answer = of(LAID);
    expect(heardIn.recording()?.id).toBe('album');
    await heardIn.choose('live');
    expect([heardIn.status(), heardIn.recording()?.id, heardIn.other()?.semitones]).toEqual([
      'ready',
      'live',
      1,
    ]);
    expect(heardIn.other()?.map.toOther(10)).toBeCloseTo(14);
    // Read anew from the server, it goes on.
    reference.set({ ...ALBUM });
    TestBed.tick();
    expect(heardIn.recording()?.id).toBe('live');
    heardIn.next();
    expect([heardIn.status(), heardIn.recording()?.id]).toEqual(['reference', 'album']);
  });

  it('stays the reference where the other is of another song, or can not be laid along', async () => {
    answer = of({ belongs: false, likeness: 0.3 });
    await heardIn.choose('live');
    expect([heardIn.status(), heardIn.recording()?.id]).toEqual(['apart', 'album']);
    answer = throwError(() => new Error('away'));
    await heardIn.choose('live');
    expect([heardIn.status(), heardIn.recording()?.id]).toEqual(['failed', 'album']);
  });

  it('is what was asked for last, whatever is answered late', async () => {
    const late = new Subject<RecordingAlignment>();
    answer = late;
    const choosing = heardIn.choose('live');
    expect([heardIn.status(), heardIn.chosen()?.id]).toEqual(['aligning', 'live']);
    await heardIn.choose('album');
    late.next(LAID);
    late.complete();
    await choosing;
    expect([heardIn.status(), heardIn.recording()?.id]).toEqual(['reference', 'album']);
  });

  it('becomes what the tab is written to: its beats move, and it is the reference then', async () => {
    answer = of(LAID);
    await heardIn.choose('live');
    heardIn.makeReference();
    expect(document.recordings).toEqual([{ id: 'live', isReference: true }]);
    expect(document.grid.beatsS.map((t) => Math.round(10 * t) / 10)).toEqual([5, 6]);
    reference.set(LIVE);
    TestBed.tick();
    expect([heardIn.status(), heardIn.recording()?.id]).toEqual(['reference', 'live']);
  });
});
