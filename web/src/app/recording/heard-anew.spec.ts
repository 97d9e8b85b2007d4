import { describe, expect, it } from 'vitest';
import type { AnalysedStrum } from '@wild-needle/core/analysis';
import { cutSignal, putBack } from './heard-anew';

const strum = (timeS: number, root = 40): AnalysedStrum => ({
  timeS,
  endS: timeS + 0.4,
  midi: [root, root + 7],
  rootPc: root % 12,
  quality: '5',
  palmMuted: false,
  dead: false,
  confidence: 0.9,
  alternatives: [],
  name: 'E5',
  voicings: [],
});
const before = [strum(1), strum(2), strum(3)];

describe('a part heard anew', () => {
  it('is cut with its surroundings, not beyond the ends', () => {
    const signal = { channels: [Float32Array.from({ length: 4000 }, (_, i) => i)], sampleRate: 100 };
    const cut = cutSignal(signal, { startS: 15, endS: 16 });
    expect(cut.fromS).toBe(3);
    expect(cut.signal.channels[0]).toHaveLength(2500);
    expect(cut.signal.channels[0][0]).toBe(300);
    expect(cutSignal(signal, { startS: 1, endS: 2 }).fromS).toBe(0);
  });

  it('takes the place of what was heard there, and nothing else', () => {
    const { strums, changed } = putBack(before, [strum(0.9), strum(2.01, 43), strum(2.4)], {
      startS: 1.5,
      endS: 2.5,
    });
    expect(strums.map((s) => [s.timeS, s.midi[0]])).toEqual([
      [1, 40],
      [2.01, 43],
      [2.4, 40],
      [3, 40],
    ]);
    expect(changed).toBe(2);
  });

  it('counts nothing when it sounds the same', () => {
    expect(putBack(before, [strum(2.002)], { startS: 1.5, endS: 2.5 }).changed).toBe(0);
  });
});
