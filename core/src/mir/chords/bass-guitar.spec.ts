import { describe, expect, it } from 'vitest';
import { withoutBassGuitar } from './bass-guitar';
import { CHORD_SHAPES } from './chord-shapes.data';
import { BASS_NOTES, SHAPES, LOWEST_BASS } from './chord-network';

const shape = (notes: string): number => CHORD_SHAPES.findIndex((f) => f.notes?.join() === notes);
const [SINGLE, POWER] = [shape('0'), shape('0,7,12')];
const at = (bass: number, which: number): number => (bass - LOWEST_BASS) * SHAPES + which;

function strum(...readings: readonly (readonly [bass: number, shape: number, p: number])[]): Float32Array {
  const posterior = new Float32Array(BASS_NOTES * SHAPES).fill(1e-9);
  for (const [bass, which, p] of readings) posterior[at(bass, which)] = p;
  return posterior;
}

const chord = strum([48, POWER, 0.9]);
const higher = strum([51, POWER, 0.9]);
const doubtful = strum([36, SINGLE, 0.6], [48, POWER, 0.3]);
const clear = strum([36, SINGLE, 0.99], [48, POWER, 0.001]);
const logs = (some: readonly Float32Array[]): Float32Array[] => some.map((p) => p.map(Math.log));

describe('notes of the bass guitar', () => {
  it('are doubtful single notes under every chord of the song', () => {
    const song = [chord, chord, doubtful, higher, doubtful, chord];
    const left = withoutBassGuitar(logs(song), song);
    expect(left?.[2][at(36, SINGLE)]).toBe(-60);
    expect(left?.[2][at(48, POWER)]).toBeCloseTo(Math.log(0.3), 6);
    // The chords are what they were.
    expect(left?.[0]).toEqual(logs(song)[0]);
  });

  it('are none where the low notes are clear: a pedal note under the chords of a riff', () => {
    const song = [chord, chord, clear, clear, higher, chord];
    expect(withoutBassGuitar(logs(song), song)).toBeNull();
  });

  it('are none where a chord lies as low, nor in a song without chords', () => {
    const low = strum([36, POWER, 0.9]);
    const song = [low, low, doubtful, chord];
    expect(withoutBassGuitar(logs(song), song)).toBeNull();
    expect(withoutBassGuitar(logs([doubtful, clear]), [doubtful, clear])).toBeNull();
  });

  it('may lie under one chord that was misread', () => {
    const misread = strum([36, POWER, 0.5]);
    const song = [...Array.from({ length: 9 }, () => chord), misread, doubtful];
    expect(withoutBassGuitar(logs(song), song)?.[10][at(36, SINGLE)]).toBe(-60);
  });
});
