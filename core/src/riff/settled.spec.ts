import { describe, expect, it } from 'vitest';
import { PLAIN_RIFF, PLAIN_SECTION, PLAIN_SONG, PLAIN_STRUM, type SongDocument } from './document';
import { addSecondGuitar, swapGuitars } from './guitars';
import { doubleRiff } from './riff-edit';
import { joinWithNext, splitSection } from './section-edit';
import { settle, settledAt, signatureOf, type PlaceInPass } from './settled';
import { checkedBySection, strumsInPasses } from './strums-in-passes';

const STRUM = {
  ...PLAIN_STRUM,
  id: 's',
  startTicks: 960,
  durationTicks: 480,
  frets: [
    { string: 6, fret: 3 },
    { string: 5, fret: 5 },
  ],
  trust: 'heard' as const,
};
const SONG: SongDocument = {
  ...PLAIN_SONG,
  title: 'T',
  grid: {
    beatsS: Array.from({ length: 17 }, (_, i) => i / 2),
    bars: Array.from({ length: 4 }, (_, i) => ({ beat: 4 * i, beats: 4, unit: 4 as const })),
  },
  riffs: [{ ...PLAIN_RIFF, id: 'a', letter: 'A', name: 'A', bars: [{ beats: 4, unit: 4 }], strums: [STRUM] }],
  sections: [{ ...PLAIN_SECTION, id: '1', name: 'Verse', riffId: 'a', startBar: 0, passes: 4, transpose: 0 }],
};
const written = signatureOf(STRUM, SONG.tuning);
const place = (pass: number): PlaceInPass => ({ sectionId: '1', pass, ticks: 960, written });
const keptPasses = (song: SongDocument): string[] =>
  strumsInPasses(song)
    .filter((s) => s.settled === 'kept')
    .map((s) => String(s.pass.startBar));

describe('what the ear has settled', () => {
  it('holds for what was written, on whatever strings', () => {
    expect(written).toBe('open 43 50');
    const elsewhere = [
      { string: 6, fret: 3 },
      { string: 4, fret: 0 },
    ];
    expect(signatureOf({ ...STRUM, frets: elsewhere }, SONG.tuning)).toBe(written);
    expect(signatureOf({ ...STRUM, palmMute: true }, SONG.tuning)).toBe('muted 43 50');
    expect(signatureOf({ ...STRUM, dead: true }, SONG.tuning)).toBe('dead');
  });

  it('takes a newer answer for the same place', () => {
    const doubtful = settle(SONG, [place(1)], 'doubtful');
    const kept = settle(doubtful, [place(1)], 'kept');
    expect(kept.sections[0].settled).toHaveLength(1);
    expect(settledAt(kept.sections[0], place(1))?.answer).toBe('kept');
    expect(settle(kept, [place(1)], 'kept')).toBe(kept);
  });

  it('goes along when a section is cut, joined again, and its riff written twice as long', () => {
    const kept = settle(SONG, [place(1), place(2)], 'kept');
    const cut = splitSection(kept, '1', 2, '2');
    expect(cut.sections.map((s) => s.settled.map((x) => x.pass))).toEqual([[1], [0]]);
    expect(keptPasses(cut)).toEqual(['1', '2']);
    const joined = joinWithNext(cut, '1');
    expect(keptPasses(joined)).toEqual(['1', '2']);
    const doubled = doubleRiff(kept, 'a', () => 'second');
    expect(keptPasses(doubled)).toEqual(['0', '2']);
    expect(
      strumsInPasses(doubled)
        .filter((s) => s.settled)
        .map((s) => s.ticks),
    ).toEqual([4800, 960]);
  });

  it('belongs to one guitar', () => {
    const kept = settle(addSecondGuitar(SONG), [place(0)], 'kept');
    const other = swapGuitars(kept);
    expect(settledAt(other.sections[0], place(0))).toBeNull();
    expect(swapGuitars(other)).toEqual(kept);
  });

  it('is counted by section', () => {
    const kept = settle(SONG, [place(0), place(3)], 'kept');
    expect(checkedBySection(kept).get('1')).toEqual({ checked: 2, of: 4 });
  });
});

describe('the strums of all passes', () => {
  it('stand where they sound, at the height that they sound at', () => {
    const moved = { ...SONG, sections: [{ ...SONG.sections[0], passes: 2, transpose: 2 }] };
    expect(strumsInPasses(moved).map((s) => [s.id, s.timeS, s.midi])).toEqual([
      ['1/0/s', 0.5, [45, 52]],
      ['1/1/s', 2.5, [45, 52]],
    ]);
  });

  it('leave out what is not struck, and what is not written yet', () => {
    const strums = [
      { ...STRUM, rest: true },
      { ...STRUM, id: 'blank', startTicks: 1920, frets: [] },
      { ...STRUM, id: 'slid', startTicks: 2880, marks: { ...STRUM.marks, join: 'slide' as const } },
    ];
    expect(strumsInPasses({ ...SONG, riffs: [{ ...SONG.riffs[0], strums }] })).toEqual([]);
  });
});
