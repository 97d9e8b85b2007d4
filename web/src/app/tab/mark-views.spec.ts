import { describe, expect, it } from 'vitest';
import { NO_MARKS, type Strum } from '@wild-needle/core/riff';
import { MARK_VIEWS } from './mark-views';
import { layoutRow } from './row-layout';
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
    const [from, to] = MARK_VIEWS.slide
      .line(slid)
      .slice(1)
      .split('L')
      .map((point) => point.split(' ').map(Number));
    expect(from[1]).toBeGreaterThan(to[1]);
    expect(MARK_VIEWS.hammer.line(slid)).toBe('');
  });

  it('arch from one strum to the next where it is hammered, and under both where it is tied', () => {
    const [, hammered] = marked({ join: 'hammer' });
    const bow = Number(/Q[\d.]+ ([\d.-]+)/.exec(MARK_VIEWS.hammer.line(hammered))![1]);
    expect(bow).toBeLessThan(hammered.top);
    const [, tied] = marked({ join: 'tie' });
    const under = Number(/Q[\d.]+ ([\d.-]+)/.exec(MARK_VIEWS.tie.line(tied))![1]);
    expect(under).toBeGreaterThan(tied.top + tied.height);
  });

  it('stand as three strokes through the tail of what is picked in tremolo', () => {
    const [, block] = marked({ tremolo: true });
    const strokes = MARK_VIEWS.tremolo.line(block).match(/M[\d.]+ [\d.]+l6 -14/g) ?? [];
    expect(strokes).toHaveLength(3);
    const from = strokes.map((s) => Number(/M([\d.]+)/.exec(s)![1]));
    expect(from.every((x) => x > block.x + block.width)).toBe(true);
  });
});
