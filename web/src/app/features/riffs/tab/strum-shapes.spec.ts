import { describe, expect, it } from 'vitest';
import { NO_MARKS, type Strum } from '@wild-needle/core/riff';
import { layoutRow } from './row-layout';
import { archPath, slidePath, tailPath, tremoloPath } from './strum-shapes';
import { OPTIONS, RIFF, strum } from './test-row';

describe('marks in the row', () => {
  const marked = (marks: Partial<Strum['marks']>): ReturnType<typeof layoutRow>['blocks'] =>
    layoutRow(
      {
        ...RIFF,
        strums: [strum(0, [[6, 3]]), strum(960, [[6, 5]], { marks: { ...NO_MARKS, ...marks } })],
      },
      OPTIONS,
    ).blocks;

  it('join a slid strum to the one before, up to the right when the fret rises', () => {
    const [, slid] = marked({ join: 'slide' });
    expect(slid.joins).toEqual([{ fromX: 28, toX: 200, y: slid.digits[0].y, rises: 1 }]);
    expect(slid.stroke).toBeNull();
    const [from, to] = slidePath(slid.joins[0])
      .slice(1)
      .split('L')
      .map((point) => point.split(' ').map(Number));
    expect(from[1]).toBeGreaterThan(to[1]);
    expect(archPath(slid.joins, slid, false)).toMatch(/^M.*Q/);
  });

  it('let a ring go on under what follows, and stop a short one at a stub', () => {
    const [ringing] = layoutRow(
      {
        ...RIFF,
        strums: [
          strum(0, [[6, 3]], { marks: { ...NO_MARKS, length: 'ring' } }),
          strum(960, [[4, 5]]),
          strum(1920, [[6, 5]]),
        ],
      },
      OPTIONS,
    ).blocks;
    expect(ringing.tailX).toBe(400);
    expect(tailPath({ ...ringing, marks: { ...NO_MARKS, length: 'short' } })).toContain('h8v');
  });

  it('stand as three strokes through the tail of what is picked in tremolo', () => {
    const [block] = layoutRow(RIFF, OPTIONS).blocks;
    const strokes = tremoloPath(block).match(/M[\d.]+ [\d.]+l6 -14/g) ?? [];
    expect(strokes).toHaveLength(3);
    const from = strokes.map((s) => Number(/M([\d.]+)/.exec(s)![1]));
    expect(from.every((x) => x > block.x + block.width)).toBe(true);
  });
});
