import { describe, expect, it } from 'vitest';
import { fingeringWords, fretText, handWords } from './fingering-words';

describe('ways in words', () => {
  const way = {
    frets: [
      { string: 6, fret: 3 },
      { string: 5, fret: 5 },
    ],
    notes: [43, 50],
    position: 3,
    fits: null,
    reasons: [],
    fingers: [
      { string: 6, fret: 3, finger: 1 as const },
      { string: 5, fret: 5, finger: 3 as const },
    ],
    quiet: [
      { string: 4, by: 'flat-finger' as const },
      { string: 3, by: 'flat-finger' as const },
    ],
    handSpanMm: 70,
  };

  it('tell why a way is offered', () => {
    expect(fingeringWords(way, null)).toBe('At fret 3');
    const reasons = [{ kind: 'adds', midi: 55, heard: 0.9 }, { kind: 'nearest' }] as const;
    expect(fingeringWords({ ...way, reasons }, null)).toBe('With the G3 that sounds, nearest to the hand');
    expect(fingeringWords({ ...way, reasons: [{ kind: 'leaves-out', midi: 50, heard: 0.1 }] }, null)).toBe(
      'Leaves out D3, not heard',
    );
  });

  it('tell the fingers and what keeps the other strings quiet', () => {
    expect(handWords(way)).toBe('Fingers 1 3; mute 4 3 with the flat index');
    expect(fretText(way.frets, 6)).toBe('3 5 · · · ·');
  });
});
