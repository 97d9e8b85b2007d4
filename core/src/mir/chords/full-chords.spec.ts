import { describe, expect, it } from 'vitest';
import { BASS_NOTES, LOWEST_BASS, SHAPES } from './chord-network';
import { CHORD_SHAPES } from './chord-shapes.data';
import { FULL_KIND, fullKindOf, spareFullChords } from './full-chords';

const shape = (notes: string): number => CHORD_SHAPES.findIndex((f) => f.notes?.join(' ') === notes);
const at = (bass: number, notes: string): number => (bass - LOWEST_BASS) * SHAPES + shape(notes);

function logs(readings: Record<string, number>, bass = 40): Float32Array {
  const all = new Float32Array(BASS_NOTES * SHAPES).fill(Math.log(1e-6));
  for (const [notes, p] of Object.entries(readings)) all[at(bass, notes)] = Math.log(p);
  return all;
}

describe('full chords', () => {
  it('are those with a third, fourth or second over root and fifth', () => {
    const named = CHORD_SHAPES.flatMap(({ notes }, f) =>
      FULL_KIND[f] ? [`${notes?.join(' ')}: ${FULL_KIND[f]}`] : [],
    );
    expect(named).toContain('0 7 12 16 19 24: maj');
    expect(named).toContain('0 7 12 17: sus4');
    expect(named.some((n) => n.startsWith('0 7:') || n.startsWith('0 7 12:') || n.startsWith('0 5 9'))).toBe(
      false,
    );
  });

  it('are heard by all their shapes together, and only where they are likelier than all else', () => {
    expect(fullKindOf(logs({ '0 7 12 16': 0.3, '0 7 12 16 19': 0.35, '0 7 12': 0.32 }))).toBe('maj');
    expect(fullKindOf(logs({ '0 7 12 16 19': 0.45, '0 7 12': 0.3, '0 7': 0.2 }))).toBeNull();
    expect(fullKindOf(logs({ '0 7 12': 0.9 }))).toBeNull();
  });

  it('are not ruled out for being rare', () => {
    const vocabulary = logs({ '0 7': 0.9 });
    const before = vocabulary.slice();
    spareFullChords(vocabulary);
    expect(vocabulary[at(40, '0 7 12 16 19')]).toBeCloseTo(Math.log(0.9) - 1.5, 4);
    expect(vocabulary[at(40, '0 7 12')]).toBe(before[at(40, '0 7 12')]);
    expect(vocabulary[at(40, '0')]).toBe(before[at(40, '0')]);
  });
});
