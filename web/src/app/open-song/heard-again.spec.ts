import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import { signal, type WritableSignal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { AnalysedStrum, Analysis } from '@wild-needle/core/analysis';
import {
  changeAsGuitar,
  PLAIN_RIFF,
  PLAIN_SECTION,
  PLAIN_SONG,
  PLAIN_STRUM,
  asGuitar,
  type GuitarNumber,
  type SongDocument,
} from '@wild-needle/core/riff';
import { HeardAgain } from './heard-again';
import { OpenSongStore } from './open-song.store';

const E5 = [40, 47];
const G5 = [43, 50];
const A5 = [45, 52];

/** One bar of two strums, E5 and G5, played twice; half a second to the beat. */
const SONG: SongDocument = {
  ...PLAIN_SONG,
  grid: {
    beatsS: Array.from({ length: 9 }, (_, i) => i / 2),
    bars: [0, 4].map((beat) => ({ beat, beats: 4, unit: 4 })),
  },
  riffs: [
    {
      ...PLAIN_RIFF,
      id: 'r',
      letter: 'A',
      name: 'Riff A',
      bars: [{ beats: 4, unit: 4 }],
      strums: [0, 3].map((fret, i) => ({
        ...PLAIN_STRUM,
        id: `s${i}`,
        startTicks: 1920 * i,
        durationTicks: 1920,
        frets: [
          { string: 6, fret },
          { string: 5, fret: fret + 2 },
        ],
        trust: 'heard',
      })),
    },
  ],
  sections: [{ ...PLAIN_SECTION, id: 'v', name: 'Verse', riffId: 'r', startBar: 0, passes: 2, transpose: 0 }],
};
const strum = (timeS: number, midi: readonly number[]): AnalysedStrum => ({
  timeS,
  endS: timeS + 0.9,
  midi,
  rootPc: midi[0] % 12,
  quality: '5',
  palmMuted: false,
  dead: false,
  confidence: 0.9,
  alternatives: [],
  name: '',
  voicings: [],
});
const played = (second: readonly number[]): AnalysedStrum[] =>
  [0, 2].flatMap((startS) => [strum(startS, E5), strum(startS + 1, second)]);
const SERVER = {
  schema: 'wild-needle/analysis@1',
  algorithm: 'test',
  durationS: 4,
  referenceOffsetCents: 0,
  referenceSpreadCents: 0,
  tempoBpm: 120,
  meter: { beats: 4, unit: 4, pulseBpm: 120, confidence: 1 },
  beatsS: [],
  downbeatsS: [],
  key: null,
  tuning: { name: 'standard', stringsMidi: [40, 45, 50, 55, 59, 64], capo: 0, candidates: [] },
  sections: [],
  strums: played(G5),
  guitars: [],
  doubts: [],
} as unknown as Analysis;
const ALL = { startS: 0, endS: Infinity };

/** A page with the song opened; what the browser keeps outlives it. */
class Page {
  readonly analysis: WritableSignal<Analysis | null> = signal(null);
  readonly document = signal(SONG);
  readonly guitar = signal<GuitarNumber>(1);
  readonly anew: HeardAgain;

  constructor(analysis: Analysis = SERVER, document: SongDocument = SONG) {
    this.document.set(document);
    TestBed.resetTestingModule();
    TestBed.configureTestingModule({
      providers: [
        {
          provide: OpenSongStore,
          useValue: {
            songId: () => 'song',
            analysis: this.analysis,
            document: this.document,
            written: () => asGuitar(this.document(), this.guitar()),
            guitar: this.guitar,
            showHeard: (heard: Analysis) => this.analysis.set(heard),
            changeWritten: (change: (d: SongDocument) => SongDocument) =>
              this.document.update((d) => changeAsGuitar(d, this.guitar(), change)),
          },
        },
      ],
    });
    this.anew = TestBed.inject(HeardAgain);
    this.analysis.set(analysis);
    TestBed.tick();
  }

  suggested(): (string | null)[] {
    return (this.anew.byRiff().get('r') ?? []).map((s) => s.strumId);
  }

  seconds(): readonly number[] | undefined {
    return this.analysis()?.strums[1].midi;
  }
}

describe('what was heard again', () => {
  beforeEach(() => {
    globalThis.indexedDB = new IDBFactory();
  });

  it('is a suggestion until it is taken, left, or taken back', () => {
    const page = new Page();
    const heard = page.anew.show(played(A5), ALL);
    expect(heard?.changed).toBe(2);
    expect(page.seconds()).toEqual(A5);
    expect(page.suggested()).toEqual(['s1']);
    expect(page.document()).toBe(SONG);
    page.anew.take(...page.anew.byRiff().get('r')!);
    expect(page.document().riffs[0].strums[1].frets).toContainEqual({ string: 6, fret: 5 });
    expect(page.suggested()).toEqual([]);
    // Undone, it is open again.
    page.document.set(SONG);
    expect(page.suggested()).toEqual(['s1']);
    page.anew.leave(page.anew.byRiff().get('r')![0]);
    expect(page.suggested()).toEqual([]);
    expect(page.seconds()).toEqual(A5);
    heard?.undo();
    expect(page.seconds()).toEqual(G5);
  });

  it('is there after a reload, and not when the server has heard the recording anew', async () => {
    new Page().anew.show(played(A5), ALL);
    const reloaded = new Page();
    await vi.waitFor(() => expect(reloaded.seconds()).toEqual(A5));
    expect(reloaded.suggested()).toEqual(['s1']);
    reloaded.anew.leave(reloaded.anew.byRiff().get('r')![0]);
    const again = new Page();
    await vi.waitFor(() => expect(again.seconds()).toEqual(A5));
    expect(again.suggested()).toEqual([]);
    const other = new Page({ ...SERVER, algorithm: 'newer' });
    await new Promise((resolve) => setTimeout(resolve, 50));
    expect(other.seconds()).toEqual(G5);
  });

  it('is of the guitar that is shown, where two were heard apart', () => {
    const second: SongDocument = {
      ...SONG,
      guitar2: SONG.tuning,
      riffs: SONG.riffs.map((r) => ({ ...r, guitar2: r.strums.map((s) => ({ ...s, id: `${s.id}-2` })) })),
    };
    const sides = (['left', 'right'] as const).map((side) => ({ side, strums: played(G5) }));
    const page = new Page({ ...SERVER, guitars: sides }, second);
    page.guitar.set(2);
    page.anew.show(played(A5), ALL);
    const secondsOf = (guitar: number): readonly number[] | undefined =>
      page.analysis()?.guitars[guitar - 1].strums[1].midi;
    expect([secondsOf(1), secondsOf(2), page.seconds()]).toEqual([G5, A5, G5]);
    expect(page.suggested()).toEqual(['s1-2']);
    page.guitar.set(1);
    expect(page.suggested()).toEqual([]);
  });
});
