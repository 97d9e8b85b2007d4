import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  addPickUp,
  fillGap,
  freeBars,
  moveBarLine,
  moveDownbeat,
  setBarBeats,
  whyNotFill,
  whyNotFree,
  whyNotPickUp,
} from './bar-edit';
import type { SongDocument } from './document';
import { countAt } from './grid';
import { setMeter } from './meter-edit';
import {
  addPasses,
  beginPart,
  joinWithNext,
  lengthenSection,
  moveSection,
  splitSection,
} from './section-edit';
import { endBarOf, sectionBars } from './section-span';
import { layTapped } from './tapped';
import { doubleTempo, halveTempo } from './tempo-edit';
import { SONG, timesOf } from './test-grid-song';

describe('the one', () => {
  it('moves by a beat while the strums stay in the sound, apart from what goes round', () => {
    const moved = moveDownbeat(SONG, 1);
    expect(moved.grid.bars[1].beat).toBe(1);
    const before = new Set(timesOf(SONG).map((t) => t.toFixed(4)));
    const stayed = timesOf(moved).filter((t) => before.has(t.toFixed(4)));
    expect(stayed.length / timesOf(SONG).length).toBeGreaterThan(0.85);
    expect(moveDownbeat(moved, -1).riffs).toEqual(SONG.riffs);
  });

  it('moved there and back is the same: nothing is shortened', () => {
    const whole: SongDocument = { ...SONG, grid: { ...SONG.grid, beatsS: SONG.grid.beatsS.slice(0, 64) } };
    for (const by of [1, -1, 2, -3, 4]) {
      const moved = moveDownbeat(whole, by, 'bar');
      expect(moveDownbeat(moved, -by, 'bar'), `${by} beats`).toEqual(whole);
      expect(moveDownbeat(moveDownbeat(whole, by), -by), `${by} beats, in the sound`).toEqual(whole);
      const step = by > 0 ? 1 : -1;
      let there = whole;
      for (let i = 0; i < 2 * Math.abs(by); i++)
        there = moveDownbeat(there, i < Math.abs(by) ? step : -step, 'bar');
      expect(there, `${by} steps`).toEqual(whole);
    }
  });

  it('leaves shorter bars at the ends, and of the first pass what sounds', () => {
    const moved = moveDownbeat(SONG, -1);
    expect(moved.grid.bars.slice(0, 2)).toEqual([
      { beat: 0, beats: 3, unit: 4 },
      { beat: 3, beats: 4, unit: 4 },
    ]);
    expect(moved.grid.bars.at(-1)).toEqual({ beat: 63, beats: 1, unit: 4 });
    expect(moved.sections.map((s) => [s.startBar, s.passes])).toEqual([
      [0, 4],
      [8, 2],
    ]);
    const before = new Set(timesOf(SONG).map((t) => t.toFixed(4)));
    expect(timesOf(moved).filter((t) => !before.has(t.toFixed(4)))).toEqual([]);
    expect(moveDownbeat(SONG, 1).grid.bars[0]).toEqual({ beat: 0, beats: 1, unit: 4 });
  });

  it('names each strum once where a variation that comes round has strums of an earlier turn', () => {
    const [riff] = SONG.riffs;
    const ending = {
      id: 'v',
      name: 'Ending',
      fromTicks: 3840,
      toTicks: 7680,
      strums: [{ ...riff.strums[0], id: 'v/1', startTicks: 4000 }],
      guitar2: [],
    };
    const [turned] = moveDownbeat({ ...SONG, riffs: [{ ...riff, variations: [ending] }] }, -1).riffs;
    const ids = [turned, ...turned.variations].flatMap((part) => part.strums.map((s) => s.id));
    expect(turned.variations[0]).toMatchObject({ fromTicks: 0, toTicks: 7680 });
    expect(ids.filter((id, i) => ids.indexOf(id) !== i)).toEqual([]);
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

describe('free time and pick-ups', () => {
  it('takes bars away where nothing is played, and puts them back', () => {
    const free = freeBars(SONG, 13, 2);
    expect(free.grid.bars.map((b) => b.beat).slice(12)).toEqual([48, 60]);
    expect(free.grid.beatsS).toBe(SONG.grid.beatsS);
    expect(timesOf(free)).toEqual(timesOf(SONG));
    const filled = fillGap(free, 13, 'before', 45);
    expect(filled.grid.bars).toEqual(SONG.grid.bars);
    filled.grid.beatsS.forEach((t, i) => expect(t).toBeCloseTo(SONG.grid.beatsS[i], 6));
    expect(whyNotFill(SONG, 13, 'before', 45)).toEqual({ kind: 'no-gap-here' });
  });

  it('fills a gap from either side, before the first bar and behind the last too', () => {
    const waltz = SONG.grid.bars.map((b, i) => (i < 14 ? b : { ...b, beat: b.beat + 5, beats: 3 }));
    const gap: SongDocument = {
      ...SONG,
      grid: { beatsS: Array.from({ length: 80 }, (_, i) => 1 + 0.6 * i), bars: waltz },
    };
    const metersOf = (d: SongDocument): number[] => d.grid.bars.slice(14).map((b) => b.beats);
    expect(metersOf(fillGap(gap, 14, 'before', 60))).toEqual([4, 1, 3, 3]);
    expect(metersOf(fillGap(gap, 14, 'behind', 60))).toEqual([2, 3, 3, 3]);
    const ended = fillGap(SONG, 16, 'before', 45);
    expect(ended.grid.bars.slice(16).map((b) => [b.beat, b.beats])).toEqual([
      [64, 4],
      [68, 4],
      [72, 1],
    ]);
    expect(ended.grid.beatsS.at(-1)).toBeCloseTo(44.8, 6);
    const late = { ...SONG, grid: { ...SONG.grid, beatsS: SONG.grid.beatsS.map((t) => t + 2) } };
    const begun = fillGap(late, 0, 'behind', 45);
    expect(begun.grid.bars.slice(0, 3).map((b) => [b.beat, b.beats])).toEqual([
      [0, 1],
      [1, 4],
      [5, 4],
    ]);
    expect(begun.sections.map((s) => s.startBar)).toEqual([2, 10]);
    expect(whyNotFill(SONG, 0, 'before', 45)).toEqual({ kind: 'no-bars-on-side', side: 'before' });
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

it('a bar that grows before a gap ends the part there, and reaches into none behind the gap', () => {
  const gap = freeBars(SONG, 12, 1);
  const played = beginPart(gap, 12, { sectionId: 'p', riffId: 'r-p' });
  const grown = setBarBeats(played, 1, 8);
  expect(played.sections.map((s) => [s.id, s.startBar, sectionBars(played, s)])).toEqual([
    ['s', 0, 8],
    ['t', 8, 4],
    ['p', 12, 3],
  ]);
  expect(grown.sections.map((s) => [s.id, s.startBar, sectionBars(grown, s)])).toEqual([
    ['s', 0, 8],
    ['t', 8, 3],
    ['p', 11, 3],
  ]);
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
    fc.tuple(fc.nat(20), fc.constantFrom('before' as const, 'behind' as const)).map(
      ([bar, side]) =>
        (d: SongDocument) =>
          fillGap(d, bar, side, 45),
    ),
    fc.tuple(fc.nat(16), fc.integer({ min: 1, max: 6 }), fc.integer({ min: 2, max: 7 })).map(
      ([from, count, beats]) =>
        (d: SongDocument) =>
          setMeter(d, { from, end: from + count }, { beats, unit: beats > 4 ? 8 : 4 }),
    ),
    fc.tuple(fc.double({ min: 0.3, max: 1, noNaN: true }), fc.boolean()).map(
      ([period, follows]) =>
        (d: SongDocument) =>
          layTapped(d, {
            beatsS: [0, 1, 2, 3, 4, 5].map((i) => 8 + i * period),
            meter: { beats: 4, unit: 4 },
            rest: follows ? 'follows' : 'keeps',
            onsetsS: [],
            durationS: 41,
          }),
    ),
    fc.nat(16).map(
      (bar) => (d: SongDocument) =>
        beginPart(d, bar, {
          sectionId: `p${bar}-${d.sections.length}`,
          riffId: `r${bar}-${d.riffs.length}`,
        }),
    ),
    fc.tuple(fc.constantFrom('s', 't'), fc.integer({ min: -3, max: 3 })).map(
      ([id, n]) =>
        (d: SongDocument) =>
          lengthenSection(d, id, n),
    ),
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
          expect(sections[i].startBar).toBeGreaterThanOrEqual(endBarOf({ riffs }, sections[i - 1]));
          expect(sectionBars({ riffs }, sections[i])).toBeGreaterThanOrEqual(1);
        }
      }),
      { numRuns: 200 },
    );
  });
});
