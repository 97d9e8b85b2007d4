import { describe, expect, it } from 'vitest';
import { NO_MARKS } from '@wild-needle/core/riff';
import { layoutRow } from './row-layout';
import { tailPath } from './strum-shapes';
import { OPTIONS, RIFF, strum } from './test-row';

describe('a tail', () => {
  it('goes on under what follows when it rings, and stops at a stub when it is short', () => {
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
});
