import { describe, expect, it } from 'vitest';
import { applyHabits } from './habits';
import { rankTunings, type PlayedNotes } from './tuning-candidates';
import { STANDARD_TUNING, type Tuning } from './tuning';
import { findVoicings } from './voicing';

const DROP_D: Tuning = { name: 'drop-d', stringsMidi: [38, 45, 50, 55, 59, 64], capo: 0 };
const firstFrets = (notes: readonly number[], tuning = STANDARD_TUNING): string =>
  applyHabits(findVoicings(notes, tuning), tuning)[0]
    .frets.map((f) => `${f.string}:${f.fret}`)
    .join(' ');

describe('habits of players (common practice)', () => {
  it.each([
    ['A5 keeps the movable grip', [45, 52, 57], '6:5 5:7 4:7'],
    ['G5 keeps it too', [43, 50, 55], '6:3 5:5 4:5'],
    ['E5 has no other way than its open string', [40, 47, 52], '6:0 5:2 4:2'],
    ['E5 an octave up stands on the second lowest string', [52, 59], '5:7 4:9'],
  ])('%s', (_, notes, frets) => {
    expect(firstFrets(notes)).toBe(frets);
  });

  it('leave a one-finger chord on open strings of a dropped tuning alone', () => {
    expect(firstFrets([38, 45, 50], DROP_D)).toBe('6:0 5:0 4:0');
  });

  it('leave out no string where a grip without that is at hand, as it is not for an octave', () => {
    const added = (notes: readonly number[], frets: string): number => {
      const costs = [
        findVoicings(notes, STANDARD_TUNING),
        applyHabits(findVoicings(notes, STANDARD_TUNING), STANDARD_TUNING),
      ];
      const [before, after] = costs.map(
        (all) => all.find((v) => v.frets.map((f) => `${f.string}:${f.fret}`).join(' ') === frets)!.effort,
      );
      return after - before;
    };
    expect(added([50, 57, 62], '5:5 3:2 2:3')).toBeCloseTo(0.5, 6);
    expect(added([50, 57, 62], '5:5 4:7 3:7')).toBe(0);
    expect(added([45, 57], '6:5 4:7')).toBe(0);
  });

  it('lose no voicing', () => {
    const all = findVoicings([45, 52, 57], STANDARD_TUNING);
    expect(applyHabits(all, STANDARD_TUNING)).toHaveLength(all.length);
  });
});

describe('ranking of tunings', () => {
  const chords = (roots: readonly number[], above: readonly number[], palmMuted = false): PlayedNotes[] =>
    roots.map((r) => ({ midi: above.map((a) => r + a), palmMuted }));
  const riff = (roots: readonly number[]): PlayedNotes[] => chords(roots, [0, 7, 12]);

  it('does not tune down for notes that are not played', () => {
    expect(rankTunings(riff([40, 43, 45, 40, 47]))[0].tuning.name).toBe('standard');
  });

  it('finds the dropped string that a riff stands on', () => {
    expect(rankTunings(riff([38, 38, 41, 43, 38, 45]))[0].tuning.name).toBe('drop-d');
  });

  it('takes two ringing strings for a grip of two fingers, not for a finger that lies on a third string', () => {
    const roots = [38, 40, 41, 43, 38, 40, 43, 41];
    const three = chords([45, 47, 48], [0, 7, 12]);
    const name = (strums: readonly PlayedNotes[]): string =>
      rankTunings([...strums, ...three])[0].tuning.name;
    expect(name(chords(roots, [0, 7]))).toBe('d-standard');
    expect(name(chords(roots, [0, 7, 12]))).toBe('drop-d');
    // Muted strums are played on two strings everywhere.
    expect(name(chords(roots, [0, 7], true))).toBe('drop-d');
  });

  it('says nothing by two strings of who strikes three nowhere', () => {
    expect(rankTunings(chords([38, 40, 41, 43, 38, 40, 43, 41, 45, 47], [0, 7]))[0].tuning.name).toBe(
      'drop-d',
    );
  });

  it('asks no capo where none is needed', () => {
    expect(rankTunings(riff([40, 45, 43]))[0].tuning.capo).toBe(0);
  });
});
