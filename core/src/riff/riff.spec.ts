import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  PLAIN_SONG,
  PLAIN_STRUM,
  PLAIN_RIFF,
  PLAIN_SECTION,
  addStrums,
  barTimesS,
  clearFret,
  countAt,
  countSyllable,
  lengthenStrums,
  markChecked,
  moveStrums,
  passTicksToSeconds,
  passesOf,
  placeBehind,
  repeatBar,
  riffTicks,
  rulerCounts,
  secondsToPassTicks,
  setFret,
  setFrets,
  setMark,
  markUnchecked,
  shiftFrets,
  soundingEndTicks,
  beatPeriodAt,
  overallTempo,
  tempoAt,
  type Riff,
  type SongDocument,
  type Strum,
} from './index';

function strum(id: string, startTicks: number): Strum {
  return {
    ...PLAIN_STRUM,
    id,
    startTicks,
    durationTicks: 960,
    frets: [
      { string: 6, fret: 0 },
      { string: 5, fret: 2 },
    ],
    trust: 'heard',
  };
}

const RIFF: Riff = {
  id: 'r',
  ...PLAIN_RIFF,
  letter: 'A',
  name: 'Riff',
  bars: [
    { beats: 4, unit: 4 },
    { beats: 4, unit: 4 },
  ],
  strums: [strum('a', 0), strum('b', 480), strum('c', 3840)],
};

/** Eight bars of four that slow down beat by beat. */
const BEATS = Array.from({ length: 33 }, (_, i) => 1 + 0.5 * i + 0.002 * i * i);
const DOCUMENT: SongDocument = {
  ...PLAIN_SONG,
  grid: { beatsS: BEATS, bars: Array.from({ length: 8 }, (_, i) => ({ beat: 4 * i, beats: 4, unit: 4 })) },
  riffs: [RIFF],
  sections: [{ id: 's', name: 'S', riffId: 'r', startBar: 2, passes: 3, transpose: 0, ...PLAIN_SECTION }],
};
const strumsOf = (document: SongDocument): readonly Strum[] => document.riffs[0].strums;

describe('grid', () => {
  const passes = passesOf(DOCUMENT.sections[0], RIFF, DOCUMENT.grid);

  it('lays passes one behind the other on the beats they are played on', () => {
    expect(passes.map((p) => p.startBar)).toEqual([2, 4, 6]);
    expect(passes[0].startS).toBe(BEATS[8]);
    expect(passes[0].endS).toBe(passes[1].startS);
  });

  it('leaves out passes that the recording does not have', () => {
    expect(passesOf({ ...DOCUMENT.sections[0], passes: 9 }, RIFF, DOCUMENT.grid)).toHaveLength(3);
  });

  it('turns ticks into seconds and back, also where the tempo drifts', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 7679 }), fc.integer({ min: 0, max: 2 }), (ticks, p) => {
        const seconds = passTicksToSeconds(passes[p], DOCUMENT.grid, ticks);
        expect(secondsToPassTicks(passes[p], DOCUMENT.grid, seconds)).toBeCloseTo(ticks, 5);
      }),
      { seed: 2 },
    );
  });

  it('counts bars and beats as players do', () => {
    expect(countAt(DOCUMENT.grid, BEATS[0])).toEqual({ bar: 1, beat: 1 });
    expect(countAt(DOCUMENT.grid, BEATS[6] + 0.1)).toEqual({ bar: 2, beat: 3 });
    expect(countAt({ beatsS: [], bars: [] }, 3)).toBeNull();
  });

  it('knows the tempo at a place', () => {
    expect(tempoAt(DOCUMENT.grid, 1)).toBeCloseTo(120, -1);
    expect(tempoAt({ beatsS: [1], bars: [] }, 1)).toBeNull();
    // Beats without bars, in free time, are counted as quarters.
    expect(tempoAt({ beatsS: [1, 1.5, 2], bars: [] }, 1)).toBeCloseTo(120, 6);
    expect(overallTempo({ beatsS: [1, 1.5, 2], bars: [] })).toBeCloseTo(120, 6);
    expect(barTimesS(DOCUMENT.grid)).toHaveLength(9);
  });

  // Compound time is counted in dotted notes (theory primers); quarters in 7/8 are common practice.
  it.each([
    [6, 8, 80],
    [12, 8, 80],
    [7, 8, 120],
    [4, 4, 240],
  ] as const)('counts bars of %i/%i with beats of 0.25 s at %i bpm', (beats, unit, bpm) => {
    const bars = [
      { beat: 0, beats: 1, unit },
      ...[0, 1, 2].map((i) => ({ beat: 1 + i * beats, beats, unit })),
      { beat: 1 + 3 * beats, beats: beats - 1, unit },
    ];
    const beatsS = Array.from({ length: 4 * beats + 1 }, (_, i) => 0.25 * i);
    for (const timeS of [0, 0.3, 2, 0.25 * (2 + 3 * beats)]) {
      expect(tempoAt({ beatsS, bars }, timeS)).toBeCloseTo(bpm, 6);
    }
    expect(beatPeriodAt({ beatsS, bars }, 1)).toBeCloseTo(0.25, 9);
    expect(overallTempo({ beatsS, bars })).toBeCloseTo(bpm, 6);
  });
});

describe('counts', () => {
  it.each([
    [0, 4, '1'],
    [240, 4, 'e'],
    [480, 4, '&'],
    [720, 4, 'a'],
    [2880, 4, '4'],
    [320, 4, 'trip'],
    [640, 4, 'let'],
    [100, 4, ''],
    [480, 8, '2'],
  ])('%i ticks over /%i is "%s"', (ticks, unit, text) => {
    expect(countSyllable(ticks, unit)).toBe(text);
  });

  it('rules every bar anew', () => {
    const counts = rulerCounts(RIFF);
    expect(counts).toHaveLength(16);
    expect(counts[8]).toEqual({ ticks: 3840, text: '1', onBeat: true });
  });

  it('counts sixteenths and triplets in the beats that have them', () => {
    const mixed = { ...RIFF, strums: [strum('a', 240), strum('b', 1280), strum('c', 3360)] };
    const words = rulerCounts(mixed)
      .slice(0, 11)
      .map((c) => c.text);
    expect(words.join(' ')).toBe('1 e & a 2 trip let 3 & 4 &');
  });
});

const only = (...ids: string[]): ReadonlySet<string> => new Set(ids);

describe('edits', () => {
  it('writes a fret and counts as checked', () => {
    const after = setFret(DOCUMENT, 'r', 'b', { string: 4, fret: 2 });
    expect(strumsOf(after)[1]).toMatchObject({
      frets: [
        { string: 6, fret: 0 },
        { string: 5, fret: 2 },
        { string: 4, fret: 2 },
      ],
      trust: 'checked',
    });
    expect(strumsOf(DOCUMENT)[1].frets).toHaveLength(2);
  });

  it.each([
    ['a fret that no neck has', { string: 6, fret: 25 }],
    ['a string that the tuning lacks', { string: 7, fret: 1 }],
    ['the fret that stands there', { string: 6, fret: 0 }],
  ])('changes nothing for %s', (_, frets) => {
    expect(setFret(DOCUMENT, 'r', 'b', frets)).toBe(DOCUMENT);
  });

  it('takes the strum away with its last string', () => {
    const one = setFrets(DOCUMENT, 'r', new Set(['b']), [{ string: 6, fret: 3 }]);
    expect(strumsOf(clearFret(one, 'r', 'b', 6)).map((s) => s.id)).toEqual(['a', 'c']);
  });

  it('keeps mute and dead stroke apart and the frets through both', () => {
    const muted = setMark(DOCUMENT, 'r', only('a'), 'mute');
    const dead = setMark(muted, 'r', only('a'), 'dead');
    expect(strumsOf(dead)[0]).toMatchObject({ palmMute: false, dead: true });
    expect(strumsOf(setMark(dead, 'r', only('a'), 'dead'))[0]).toMatchObject({
      dead: false,
      frets: RIFF.strums[0].frets,
    });
  });

  it('brings several strums to the same mark', () => {
    const mixed = setMark(DOCUMENT, 'r', only('b'), 'mute');
    const all = setMark(mixed, 'r', only('a', 'b', 'c'), 'mute');
    expect(strumsOf(all).map((s) => s.palmMute)).toEqual([true, true, true]);
    expect(strumsOf(setMark(all, 'r', only('a', 'b', 'c'), 'mute')).some((s) => s.palmMute)).toBe(false);
  });

  it('adds a strum in its place and refuses a taken one', () => {
    const after = addStrums(DOCUMENT, 'r', [strum('n', 240)]);
    expect(strumsOf(after).map((s) => s.id)).toEqual(['a', 'n', 'b', 'c']);
    expect(addStrums(after, 'r', [strum('m', 240)])).toBe(after);
    expect(addStrums(after, 'r', [strum('m', 99_999)])).toBe(after);
  });

  it('moves strums together as far as there is room', () => {
    const later = moveStrums(DOCUMENT, 'r', only('a'), 240);
    expect(strumsOf(later)[0].startTicks).toBe(RIFF.strums[0].startTicks + 240);
    expect(moveStrums(later, 'r', only('a'), -240)).toEqual(DOCUMENT);
    expect(moveStrums(DOCUMENT, 'r', only('a'), -240)).toBe(DOCUMENT);
    expect(moveStrums(DOCUMENT, 'r', only('a'), 480)).toBe(DOCUMENT);
    const both = moveStrums(DOCUMENT, 'r', only('a', 'b'), 480);
    expect(strumsOf(both).map((s) => s.startTicks)).toEqual([480, 960, 3840]);
  });

  it('moves a hand along the neck and across the strings, never off the neck', () => {
    const up = shiftFrets(DOCUMENT, 'r', only('a', 'b'), { frets: 3, strings: -1 });
    expect(strumsOf(up)[1].frets).toEqual([
      { string: 5, fret: 3 },
      { string: 4, fret: 5 },
    ]);
    expect(shiftFrets(DOCUMENT, 'r', only('a'), { frets: -1, strings: 0 })).toBe(DOCUMENT);
    expect(shiftFrets(DOCUMENT, 'r', only('a'), { frets: 0, strings: 1 })).toBe(DOCUMENT);
  });

  it('keeps the kind of a chord across the strings of a dropped tuning', () => {
    const dropD = { name: 'drop-d', stringsMidi: [38, 45, 50, 55, 59, 64], capo: 0 };
    const straight = setFrets({ ...DOCUMENT, tuning: dropD }, 'r', only('a'), [
      { string: 6, fret: 3 },
      { string: 5, fret: 3 },
      { string: 4, fret: 3 },
    ]);
    const across = shiftFrets(straight, 'r', only('a'), { frets: 0, strings: -1 });
    expect(strumsOf(across)[0].frets).toEqual([
      { string: 5, fret: 3 },
      { string: 4, fret: 5 },
      { string: 3, fret: 5 },
    ]);
    expect(shiftFrets(across, 'r', only('a'), { frets: 0, strings: 1 })).toEqual(straight);
  });

  it('takes a tick back: what was heard is heard again', () => {
    const checked = markChecked(DOCUMENT, 'r', only('a', 'b'));
    const back = markUnchecked(checked, 'r', only('a', 'b'), (id) => id === 'a');
    expect(
      strumsOf(back)
        .map((s) => s.trust)
        .slice(0, 2),
    ).toEqual(['heard', 'guessed']);
  });

  it('lengthens strums to the end of the riff and shortens them to one step', () => {
    const longer = lengthenStrums(DOCUMENT, 'r', only('c'), 99_999);
    expect(strumsOf(longer)[2].durationTicks).toBe(3840);
    expect(strumsOf(lengthenStrums(DOCUMENT, 'r', only('c'), -720))[2].durationTicks).toBe(720);
  });

  it('strikes a bar again in the next', () => {
    let n = 0;
    const after = repeatBar(DOCUMENT, 'r', 0, () => `new-${n++}`);
    expect(strumsOf(after).map((s) => [s.id, s.startTicks])).toEqual([
      ['a', 0],
      ['b', 480],
      ['new-0', 3840],
      ['new-1', 4320],
    ]);
    expect(repeatBar(DOCUMENT, 'r', 1, () => 'x')).toBe(DOCUMENT);
  });

  it('finds the free place behind a strum', () => {
    expect(placeBehind(RIFF, 0, 240)).toBe(240);
    expect(placeBehind(RIFF, 0, 480)).toBeNull();
    expect(placeBehind({ ...RIFF, strums: [] }, -1, 240)).toBe(0);
  });

  it('marks as checked once, and nothing that is not written yet', () => {
    const after = markChecked(DOCUMENT, 'r', only('a'));
    expect(markChecked(after, 'r', only('a'))).toBe(after);
    const blank = addStrums(DOCUMENT, 'r', [{ ...strum('n', 240), frets: [] }]);
    expect(markChecked(blank, 'r', only('n'))).toBe(blank);
  });

  it('lets a strum ring on until one of its strings is struck again', () => {
    const ringing = setMark(DOCUMENT, 'r', only('a'), 'ring').riffs[0];
    expect(soundingEndTicks(ringing, 0)).toBe(480);
    const apart = setFrets(DOCUMENT, 'r', only('b'), [{ string: 1, fret: 0 }]);
    expect(soundingEndTicks(setMark(apart, 'r', only('a'), 'ring').riffs[0], 0)).toBe(3840);
    expect(soundingEndTicks(setMark(DOCUMENT, 'r', only('a'), 'short').riffs[0], 0)).toBe(240);
  });

  it('ends a strum at the next one', () => {
    expect(soundingEndTicks(RIFF, 0)).toBe(480);
    expect(soundingEndTicks(RIFF, 2)).toBe(4800);
    expect(riffTicks(RIFF)).toBe(7680);
  });

  it('keeps order, ids and string uniqueness under any sequence of edits', () => {
    const edit = fc.tuple(
      fc.constantFrom('fret', 'mute', 'dead', 'rest', 'clear', 'add', 'shift', 'move'),
      fc.nat(2),
      fc.integer({ min: 1, max: 6 }),
      fc.nat(24),
    );
    fc.assert(
      fc.property(fc.array(edit, { maxLength: 40 }), (edits) => {
        let document = DOCUMENT;
        edits.forEach(([kind, which, string, fret], i) => {
          const id = ['a', 'b', 'c'][which];
          if (kind === 'fret') document = setFret(document, 'r', id, { string, fret });
          if (kind === 'mute' || kind === 'dead' || kind === 'rest') {
            document = setMark(document, 'r', only(id), kind);
          }
          if (kind === 'shift')
            document = shiftFrets(document, 'r', only(id), { frets: fret - 12, strings: 0 });
          if (kind === 'move') document = moveStrums(document, 'r', only(id), (fret - 12) * 240);
          if (kind === 'clear') document = clearFret(document, 'r', id, string);
          if (kind === 'add') document = addStrums(document, 'r', [strum(`n${i}`, fret * 240)]);
        });
        const strums = strumsOf(document);
        expect(strums.every((s, i) => i === 0 || s.startTicks > strums[i - 1].startTicks)).toBe(true);
        expect(new Set(strums.map((s) => s.id)).size).toBe(strums.length);
        expect(strums.every((s) => new Set(s.frets.map((f) => f.string)).size === s.frets.length)).toBe(true);
        expect(strums.every((s) => [s.dead, s.palmMute, s.rest].filter(Boolean).length <= 1)).toBe(true);
        expect(strums.flatMap((s) => s.frets).every((f) => f.fret >= 0 && f.fret <= 24)).toBe(true);
      }),
      { seed: 3 },
    );
  });
});
