import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { describe, expect, it } from 'vitest';
import { STANDARD_TUNING } from '@wild-needle/core/guitar';
import {
  PLAIN_RIFF,
  PLAIN_SECTION,
  PLAIN_SONG,
  PLAIN_STRUM,
  type SongDocument,
} from '@wild-needle/core/riff';
import { HeardPasses } from './heard-passes';
import { OpenSongStore } from './open-song.store';

const bar = { beats: 4, unit: 4 } as const;
const DOCUMENT: SongDocument = {
  ...PLAIN_SONG,
  tuning: STANDARD_TUNING,
  guitar2: null,
  grid: {
    beatsS: Array.from({ length: 17 }, (_, i) => i / 2),
    bars: [0, 4, 8, 12].map((beat) => ({ beat, ...bar })),
  },
  riffs: ['r', 'q'].map((id) => ({
    ...PLAIN_RIFF,
    id,
    letter: id,
    name: id,
    bars: [bar],
    strums: [0, 1920].map((startTicks) => ({
      ...PLAIN_STRUM,
      id: `${id}${startTicks}`,
      startTicks,
      durationTicks: 960,
      frets: [{ string: 6, fret: 3 }],
      trust: 'checked',
    })),
  })),
  sections: [
    { ...PLAIN_SECTION, id: 's', name: 'S', riffId: 'r', startBar: 0, passes: 3, transpose: 0 },
    { ...PLAIN_SECTION, id: 't', name: 'T', riffId: 'r', startBar: 3, passes: 1, transpose: 2 },
  ],
};
const heard = (timeS: number, midi: number) => ({
  timeS,
  endS: timeS + 0.4,
  midi: [midi],
  palmMuted: false,
  dead: false,
  confidence: 0.9,
});
/** As written, but for another note in the third pass; moved up in the fourth. */
const STRUMS = [0, 1, 2, 3, 4].map((t) => heard(t, 43)).concat([heard(5, 48), heard(6, 45), heard(7, 45)]);

function setUp(document = DOCUMENT): {
  passes: HeardPasses;
  written: ReturnType<typeof signal<SongDocument>>;
} {
  const written = signal(document);
  TestBed.resetTestingModule();
  TestBed.configureTestingModule({
    providers: [
      {
        provide: OpenSongStore,
        useValue: {
          songId: () => 'song',
          written,
          document: written,
          analysis: () => ({ strums: STRUMS, guitars: [] }),
          guitar: () => 1,
        },
      },
    ],
  });
  return { passes: TestBed.inject(HeardPasses), written };
}

/** The passes are compared behind the frame of the change. */
async function compared(): Promise<void> {
  TestBed.tick();
  await new Promise((resolve) => setTimeout(resolve, 60));
}

describe('passes as they were heard', () => {
  it('ask about the one that differs; a moved one is compared where the riff is written', () => {
    const found = setUp().passes.byRiff().get('r') ?? [];
    expect(found.map((p) => p.isAsking)).toEqual([false, false, true, false]);
    expect(found[2].differences.map((d) => d.kind)).toEqual(['chord']);
    expect(found[3].comparison.verdicts.map((v) => v.verdict)).toEqual(['agrees', 'agrees']);
  });

  it('are left as they were while another riff is changed', async () => {
    const { passes, written } = setUp();
    const before = passes.byRiff().get('r');
    const [r, q] = DOCUMENT.riffs;
    written.set({ ...DOCUMENT, riffs: [r, { ...q, strums: [] }] });
    await compared();
    expect(passes.byRiff().get('r')).toBe(before);
    written.set({ ...DOCUMENT, riffs: [{ ...r, strums: [] }, q] });
    await compared();
    expect(passes.byRiff().get('r')).not.toBe(before);
  });

  it('are compared a moment after a key, not before its frame', async () => {
    const { passes, written } = setUp();
    const before = passes.byRiff().get('r');
    written.set({ ...DOCUMENT, riffs: [{ ...DOCUMENT.riffs[0], strums: [] }] });
    TestBed.tick();
    expect(passes.byRiff().get('r')).toBe(before);
    await compared();
    expect(passes.byRiff().get('r')).not.toBe(before);
  });

  it('ask nothing that was answered', () => {
    const [first, second] = DOCUMENT.sections;
    const answered = { ...first, answers: [{ pass: 2, variationId: null }] };
    const found =
      setUp({ ...DOCUMENT, sections: [answered, second] })
        .passes.byRiff()
        .get('r') ?? [];
    expect(found.some((p) => p.isAsking)).toBe(false);
  });
});
