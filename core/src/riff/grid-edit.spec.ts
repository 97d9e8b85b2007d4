import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { PLAIN_RIFF, PLAIN_SECTION, PLAIN_SONG, PLAIN_STRUM, type SongDocument } from './document';
import {
  doubleTempo,
  gridFromTaps,
  halveTempo,
  moveBarLine,
  moveDownbeat,
  replaceGrid,
  setBarBeats,
  whyNotHalve,
  addPickUp,
  barsBefore,
  freeBars,
  whyNotFree,
  whyNotPickUp,
} from './grid-edit';
import { barTimesS, passesOf, passTicksToSeconds, countAt } from './grid';
import { addPasses, joinWithNext, moveSection, splitSection } from './section-edit';

/** Sixteen bars of 4/4 at 100 bpm; a riff of two bars, four times, then twice a tone higher. */
const SONG: SongDocument = {
  ...PLAIN_SONG,
  grid: {
    beatsS: Array.from({ length: 66 }, (_, i) => 1 + 0.6 * i),
    bars: Array.from({ length: 16 }, (_, i) => ({ beat: 4 * i, beats: 4, unit: 4 })),
  },
  riffs: [
    {
      id: 'r',
      ...PLAIN_RIFF,
      letter: 'A',
      name: '',
      bars: [
        { beats: 4, unit: 4 },
        { beats: 4, unit: 4 },
      ],
      strums: [0, 480, 960, 2880, 5760].map((startTicks, i) => ({
        ...PLAIN_STRUM,
        id: String(i),
        startTicks,
        durationTicks: 480,
        frets: [{ string: 6, fret: i }],
        trust: 'checked',
      })),
    },
  ],
  sections: [
    { id: 's', name: 'Verse', riffId: 'r', startBar: 0, passes: 4, transpose: 0, ...PLAIN_SECTION },
    { id: 't', name: 'Chorus', riffId: 'r', startBar: 8, passes: 2, transpose: 2, ...PLAIN_SECTION },
  ],
};

/** When each strum of each pass sounds. */
function timesOf(document: SongDocument): number[] {
  return document.sections
    .flatMap((section) => {
      const riff = document.riffs.find((r) => r.id === section.riffId)!;
      return passesOf(section, riff, document.grid).flatMap((pass) =>
        riff.strums.map((s) => passTicksToSeconds(pass, riff, document.grid, s.startTicks)),
      );
    })
    .sort((a, b) => a - b);
}

function expectSameTimes(a: SongDocument, b: SongDocument): void {
  const [one, other] = [timesOf(a), timesOf(b)];
  expect(other).toHaveLength(one.length);
  one.forEach((t, i) => expect(other[i]).toBeCloseTo(t, 6));
}

describe('tempo', () => {
  it('doubled and halved again is the same, and every strum stays where it sounds', () => {
    const doubled = doubleTempo(SONG);
    expect(doubled.grid.bars).toHaveLength(32);
    expect(doubled.riffs[0].bars).toHaveLength(4);
    expectSameTimes(SONG, doubled);
    const back = halveTempo(doubled);
    expect(back.grid.bars).toEqual(SONG.grid.bars);
    expect(back.riffs).toEqual(SONG.riffs);
    expect(back.sections).toEqual(SONG.sections);
    expectSameTimes(SONG, back);
  });

  it('can be halved where bars pair up, and says why where they do not', () => {
    expectSameTimes(SONG, halveTempo(SONG));
    const odd = { ...SONG, riffs: [{ ...SONG.riffs[0], bars: SONG.riffs[0].bars.slice(1) }] };
    expect(whyNotHalve(odd)).toEqual({ kind: 'odd-bars', letter: 'A' });
    expect(halveTempo(odd)).toBe(odd);
    const apart = { ...SONG, sections: [SONG.sections[0], { ...SONG.sections[1], startBar: 9 }] };
    expect(whyNotHalve(apart)).toEqual({ kind: 'starts-inside-bar', section: 'Chorus' });
  });

  it('can be halved where the recording ends within a bar', () => {
    const { bars } = SONG.grid;
    const cut: SongDocument = {
      ...SONG,
      grid: {
        beatsS: Array.from({ length: 71 }, (_, i) => 1 + 0.6 * i),
        bars: [...bars, ...[4, 2].map((beats, i) => ({ beat: 64 + 4 * i, beats, unit: 4 as const }))],
      },
    };
    expect(whyNotHalve(cut)).toBeNull();
    const halved = halveTempo(cut);
    expect(halved.grid.bars.at(-1)).toEqual({ beat: 32, beats: 3, unit: 4 });
    expectSameTimes(cut, halved);
    // Within the song bars must still pair up.
    const inside = {
      ...cut,
      grid: { ...cut.grid, bars: cut.grid.bars.map((bar, i) => (i === 3 ? { ...bar, beats: 2 } : bar)) },
    };
    expect(whyNotHalve(inside)).toEqual({ kind: 'uneven-bars', bar: 3 });
  });
});

describe('the one', () => {
  it('moves by a beat while the strums stay in the sound, apart from what goes round', () => {
    const moved = moveDownbeat(SONG, 1);
    expect(moved.grid.bars[0].beat).toBe(1);
    const before = new Set(timesOf(SONG).map((t) => t.toFixed(4)));
    const stayed = timesOf(moved).filter((t) => before.has(t.toFixed(4)));
    expect(stayed.length / timesOf(SONG).length).toBeGreaterThan(0.85);
    expect(moveDownbeat(moved, -1).riffs).toEqual(SONG.riffs);
  });

  it('leaves out a pass that has lost its first bar, and keeps what was decided of the others', () => {
    const third = { pass: 2, variationId: null };
    const decided = { ...SONG, sections: [{ ...SONG.sections[0], answers: [third] }, SONG.sections[1]] };
    const moved = moveDownbeat(decided, -1);
    expect(moved.sections.map((s) => [s.startBar, s.passes])).toEqual([
      [1, 3],
      [7, 2],
    ]);
    expect(moved.sections[0].answers).toEqual([{ ...third, pass: 1 }]);
    const before = new Set(timesOf(decided).map((t) => t.toFixed(4)));
    expect(timesOf(moved).filter((t) => !before.has(t.toFixed(4)))).toEqual([]);
  });

  it('takes the strums along when they belong to the bar', () => {
    const moved = moveDownbeat(SONG, 1, 'bar');
    expect(moved.riffs).toBe(SONG.riffs);
    expect(timesOf(moved)[0]).toBeCloseTo(timesOf(SONG)[0] + 0.6, 6);
  });
});

describe('single bars', () => {
  it('are moved by their line, with the beats around them spread evenly', () => {
    const { grid } = moveBarLine(SONG, 1, 3.5);
    expect(grid.beatsS[4]).toBeCloseTo(3.5, 9);
    expect(grid.beatsS[2]).toBeCloseTo((1 + 3.5) / 2, 9);
    expect(grid.beatsS[8]).toBe(SONG.grid.beatsS[8]);
    // Not beyond its neighbours.
    const far = moveBarLine(SONG, 1, 99).grid.beatsS;
    expect(far.every((t, i) => i === 0 || t > far[i - 1])).toBe(true);
  });

  it('get another number of beats, and those behind begin later', () => {
    const { bars } = setBarBeats(SONG, 3, 6).grid;
    expect(bars.slice(2, 6).map((b) => [b.beat, b.beats])).toEqual([
      [8, 4],
      [12, 6],
      [18, 4],
      [22, 4],
    ]);
    expect(setBarBeats(SONG, 3, 0)).toBe(SONG);
  });
});

describe('tapping', () => {
  it('evens out the hand and puts the one on the first tap', () => {
    const taps = [10.02, 10.49, 11.01, 11.52, 11.98, 12.5];
    const grid = gridFromTaps(taps, 4, 30)!;
    const period = grid.beatsS[1] - grid.beatsS[0];
    expect(period).toBeCloseTo(0.5, 2);
    const nearest = barTimesS(grid).reduce((a, b) => (Math.abs(b - 10) < Math.abs(a - 10) ? b : a));
    expect(Math.abs(nearest - 10)).toBeLessThan(0.03);
    expect(gridFromTaps([1, 2, 3], 4, 30)).toBeNull();
  });

  it('keeps the sections at their times', () => {
    const grid = gridFromTaps([1, 1.3, 1.6, 1.9, 2.2], 4, 40)!;
    const tapped = replaceGrid(SONG, grid);
    const at = barTimesS(grid)[tapped.sections[1].startBar];
    expect(Math.abs(at - barTimesS(SONG.grid)[8])).toBeLessThan(0.65);
    expect(tapped.riffs).toBe(SONG.riffs);
  });
});

describe('free time and pick-ups', () => {
  it('takes bars away where nothing is played, and puts them back', () => {
    const free = freeBars(SONG, 13, 2);
    expect(free.grid.bars.map((b) => b.beat).slice(12)).toEqual([48, 60]);
    expect(free.grid.beatsS).toBe(SONG.grid.beatsS);
    expect(timesOf(free)).toEqual(timesOf(SONG));
    expect(barsBefore(free, 13)).toEqual(SONG);
    expect(barsBefore(SONG, 13)).toBe(SONG);
  });

  it('moves the sections behind along, and says who is in the way', () => {
    const gap = { ...SONG, sections: [SONG.sections[0], { ...SONG.sections[1], startBar: 10 }] };
    const free = freeBars(gap, 8, 2);
    expect(free.sections[1].startBar).toBe(8);
    expect(timesOf(free)).toEqual(timesOf(gap));
    expect(whyNotFree(SONG, 6, 1)).toEqual({ kind: 'is-played-here', section: 'Verse' });
    expect(freeBars(SONG, 6, 1)).toBe(SONG);
    expect(whyNotFree(SONG, 15, 5)).toEqual({ kind: 'no-bars-here' });
  });

  it('counts nothing in free time', () => {
    const free = freeBars(SONG, 13, 2);
    expect(countAt(free.grid, 1 + 0.6 * 54)).toBeNull();
    expect(countAt(free.grid, 1 + 0.6 * 60)).toEqual({ bar: 14, beat: 1 });
  });

  it('puts a short bar before the first', () => {
    const late = moveDownbeat(SONG, 2, 'bar');
    const picked = addPickUp(late, 2);
    expect(picked.grid.bars.slice(0, 2)).toEqual([
      { beat: 0, beats: 2, unit: 4 },
      { beat: 2, beats: 4, unit: 4 },
    ]);
    expect(timesOf(picked)).toEqual(timesOf(late));
    expect(whyNotPickUp(picked, 1)).toEqual({ kind: 'has-pick-up', beats: 2 });
    expect(whyNotPickUp(SONG, 1)).toEqual({ kind: 'too-few-beats-before' });
    expect(whyNotPickUp(SONG, 4)).toEqual({ kind: 'pick-up-beats', beats: 3 });
    expect(addPickUp(SONG, 1)).toBe(SONG);
  });
});

describe('any sequence of changes', () => {
  const change = fc.oneof(
    fc.constant(doubleTempo),
    fc.constant(halveTempo),
    fc.integer({ min: -3, max: 3 }).map((n) => (d: SongDocument) => moveDownbeat(d, n)),
    fc.tuple(fc.nat(20), fc.double({ min: 0, max: 45, noNaN: true })).map(
      ([bar, t]) =>
        (d: SongDocument) =>
          moveBarLine(d, bar, t),
    ),
    fc.tuple(fc.nat(20), fc.integer({ min: 1, max: 8 })).map(
      ([b, n]) =>
        (d: SongDocument) =>
          setBarBeats(d, b, n),
    ),
    fc.tuple(fc.constantFrom('s', 't'), fc.integer({ min: -2, max: 2 })).map(
      ([id, n]) =>
        (d: SongDocument) =>
          addPasses(moveSection(d, id, n), id, n),
    ),
    fc.nat(12).map((bar) => (d: SongDocument) => splitSection(d, 's', bar, `s${bar}-${d.sections.length}`)),
    fc.constant((d: SongDocument) => joinWithNext(d, 's')),
    fc.tuple(fc.nat(20), fc.integer({ min: 1, max: 3 })).map(
      ([bar, n]) =>
        (d: SongDocument) =>
          freeBars(d, bar, n),
    ),
    fc.nat(20).map((bar) => (d: SongDocument) => barsBefore(d, bar)),
    fc.integer({ min: 1, max: 3 }).map((n) => (d: SongDocument) => addPickUp(d, n)),
  );

  it('keeps beats and bars in order and every strum', () => {
    fc.assert(
      fc.property(fc.array(change, { maxLength: 12 }), (changes) => {
        const { grid, riffs, sections } = changes.reduce((document, make) => make(document), SONG);
        for (let i = 1; i < grid.beatsS.length; i++)
          expect(grid.beatsS[i]).toBeGreaterThan(grid.beatsS[i - 1]);
        for (let i = 1; i < grid.bars.length; i++) {
          expect(grid.bars[i].beat).toBeGreaterThanOrEqual(grid.bars[i - 1].beat + grid.bars[i - 1].beats);
        }
        expect(riffs[0].strums.map((s) => s.id).sort()).toEqual(['0', '1', '2', '3', '4']);
        for (let i = 1; i < sections.length; i++) {
          expect(sections[i].startBar).toBeGreaterThanOrEqual(sections[i - 1].startBar);
          expect(sections[i].passes).toBeGreaterThanOrEqual(1);
        }
      }),
      { numRuns: 200 },
    );
  });
});
