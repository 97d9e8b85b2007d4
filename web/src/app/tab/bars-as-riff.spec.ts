import { describe, expect, it } from 'vitest';
import { riffTicks } from '@wild-needle/core/riff';
import { SONG } from './test-song';
import { barsAsRiff } from './bars-as-riff';

describe('what is written over some bars', () => {
  it('is one riff, from wherever it comes, with the frets that sound', () => {
    const shown = barsAsRiff(SONG, 3, 2);
    expect(shown?.riff.strums.map((s) => [s.id, s.startTicks, s.frets[0].fret])).toEqual([
      ['v/1/s2', 0, 7],
      ['c/0/s0', 3840, 5],
      ['c/0/s1', 5760, 7],
    ]);
    expect(riffTicks(shown!.riff)).toBe(7680);
    expect(shown?.pass).toMatchObject({ startS: 6, endS: 10, startBeat: 12, beats: 8 });
  });

  it('ends with the bars that there are, and is nothing where there are none', () => {
    expect(barsAsRiff(SONG, 7, 4)?.riff.bars).toHaveLength(1);
    expect(barsAsRiff(SONG, 8, 2)).toBeNull();
    expect(barsAsRiff({ ...SONG, sections: [] }, 0, 2)?.riff.strums).toEqual([]);
  });
});
