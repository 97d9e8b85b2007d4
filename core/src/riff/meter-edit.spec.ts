import { describe, expect, it } from 'vitest';
import type { SongDocument } from './document';
import { overallTempo, riffTicks } from './grid';
import { setMeter, useReading } from './meter-edit';
import { SONG, timesOf } from './test-grid-song';

const ALL = { from: 0, end: 16 };
const metersOf = ({ grid }: SongDocument): string[] => grid.bars.map((b) => `${b.beats}/${b.unit}`);

/** Strums stay in the sound, apart from those of a pass that does not fit whole into the new bars. */
function expectSameSound(before: SongDocument, after: SongDocument): void {
  const times = timesOf(before);
  const off = timesOf(after).filter((t) => !times.some((b) => Math.abs(b - t) < 0.02));
  expect(off).toEqual([]);
}

describe('the meter', () => {
  it('three four as six eight: the same bars and the same ticks', () => {
    const waltz = setMeter(SONG, ALL, { beats: 3, unit: 4 });
    const six = setMeter(waltz, { from: 0, end: waltz.grid.bars.length }, { beats: 6, unit: 8 });
    expect(six.grid.bars).toHaveLength(waltz.grid.bars.length);
    expect(six.riffs[0].strums).toEqual(waltz.riffs[0].strums);
    expect(riffTicks(six.riffs[0])).toBe(riffTicks(waltz.riffs[0]));
    // Counted in dotted quarters, as players do.
    expect(overallTempo(six.grid)! / overallTempo(waltz.grid)!).toBeCloseTo(2 / 3, 1);
    expect(setMeter(six, { from: 0, end: six.grid.bars.length }, { beats: 3, unit: 4 })).toEqual(waltz);
  });

  it('is set from a bar on or for a stretch, and leaves the rest', () => {
    const five = setMeter(SONG, { from: 12, end: 14 }, { beats: 5, unit: 4 });
    expect(metersOf(five).slice(10)).toEqual(['4/4', '4/4', '5/4', '3/4', '4/4', '4/4']);
    expect(five.riffs).toEqual(SONG.riffs);
    expect(five.sections).toEqual(SONG.sections);
    const on = setMeter(SONG, { from: 8, end: 16 }, { beats: 7, unit: 8 });
    expect(metersOf(on).slice(7, 10)).toEqual(['4/4', '7/8', '7/8']);
    expect(on.grid.beatsS.slice(0, 33)).toEqual(SONG.grid.beatsS.slice(0, 33));
  });

  it('is set over bars of different note values: each beat is divided as its own wants', () => {
    const mixed = setMeter(SONG, { from: 8, end: 16 }, { beats: 6, unit: 8 });
    const all = { from: 0, end: mixed.grid.bars.length };
    expect(setMeter(mixed, all, { beats: 4, unit: 4 }).grid.beatsS).toEqual(SONG.grid.beatsS);
  });

  it('leaves what is written where it sounds', () => {
    for (const meter of [
      { beats: 2, unit: 4 },
      { beats: 8, unit: 8 },
      { beats: 8, unit: 4 },
    ] as const) {
      expectSameSound(SONG, setMeter(SONG, ALL, meter));
    }
  });

  it('is refused where there are no bars, and for what no bar has', () => {
    expect(setMeter(SONG, { from: 15, end: 20 }, { beats: 3, unit: 4 })).toBe(SONG);
    expect(setMeter(SONG, ALL, { beats: 0, unit: 4 })).toBe(SONG);
    expect(setMeter(SONG, ALL, { beats: 4, unit: 4 })).toBe(SONG);
  });
});

describe('another reading', () => {
  it.each([
    [200, { beats: 4, unit: 4 }, 0.3],
    [50, { beats: 2, unit: 4 }, 1.2],
    [150, { beats: 4, unit: 4 }, 0.4],
    [67, { beats: 6, unit: 8 }, 0.3],
  ])('%i bpm in %o has a beat every %f s', (tempoBpm, meter, periodS) => {
    const read = useReading(SONG, { tempoBpm, meter });
    // Evenly through the bars; behind the last of them beats stay as they were.
    const last = read.grid.bars.at(-1)!;
    const inside = read.grid.beatsS.slice(0, last.beat + last.beats);
    inside.slice(1).forEach((t, i) => expect(t - inside[i]).toBeCloseTo(periodS, 6));
    expect(metersOf(read)[0]).toBe(`${meter.beats}/${meter.unit}`);
    expect(read.riffs[0].strums).toHaveLength(SONG.riffs[0].strums.length);
  });

  it('that has nothing to do with the beats changes nothing', () => {
    expect(useReading(SONG, { tempoBpm: 117, meter: { beats: 4, unit: 4 } })).toBe(SONG);
  });
});
