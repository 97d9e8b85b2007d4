import { describe, expect, it } from 'vitest';
import { parseTuning } from '../guitar';
import { addChord, RATE } from '../mir/test-sounds';
import { analyse } from './analyse';

describe('analyse', () => {
  it('refuses a signal without samples', () => {
    expect(() => analyse({ channels: [new Float32Array(0)], sampleRate: RATE })).toThrow(
      /at least one sample/,
    );
  });

  it('says with which frets of the tuning each strum can be played, a fret per string from the lowest up', () => {
    const out = new Float32Array(4 * RATE);
    for (let i = 0; i < 7; i++) addChord(out, 0.5 * i, 0.48, [38, 45, 50]);
    const tuning = parseTuning('D2,A2,D3,G3,B3,E4');
    const signal = { channels: [out.map((v) => Math.tanh(3 * v))], sampleRate: RATE };
    const { strums, ...rest } = analyse(signal, { tuning });
    const low = strums.filter((s) => s.midi[0] === 38);
    expect(low.length).toBeGreaterThan(3);
    for (const { midi, voicings } of low) {
      const [best] = voicings;
      expect(best.frets).toHaveLength(6);
      const sounding = best.frets.flatMap((fret, i) => (fret === null ? [] : [tuning.stringsMidi[i] + fret]));
      expect(sounding).toEqual(midi);
    }
    expect(rest.tuning.stringsMidi).toEqual(tuning.stringsMidi);
  });
});
