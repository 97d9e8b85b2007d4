/**
 * Two guitars that play one riff an octave apart, one to each side. Heard together they are power chords on three strings, or on more than a hand grips;
 * on the side of the lower one is what it plays. On the side of the higher one the chord networks hear the same chords an octave up, which they do of no
 * take that doubles another.
 */
import { createEvidence } from './chords/chord-evidence';
import { bothSay, LOWEST_BASS, SHAPES, type ChordEvidence } from './chords/chord-network';
import chordWeights from './chords/chords.json';
import { doublingOdds, setDoublingOdds } from './chords/octave-doubling';
import type { HeardStrum, StereoSignal, StrumSpan } from './types';

/** What both sides together say of a span, with what the side of the lower guitar says; it alone tells on how many strings a power chord is played. */
export type LowerGuitar = (both: ChordEvidence, span: StrumSpan, palmMuted: boolean) => ChordEvidence;

/** At most so many strums are looked at, spread over the song: more change no decision. */
const SAMPLED_STRUMS = 50;
/** Shorter ones say little. */
const SHORTEST_S = 0.1;
/** Fewer say nothing. */
const FEWEST = 8;
/** On two strings, on three, and both guitars at once; semitones over the lowest note. */
const POWER_CHORDS = ['0,7', '0,7,12', '0,7,12,19'];
/**
 * By how much an octave up is likelier on one side than on the other, in log-odds. Of 82 songs those with doubled takes and single guitars differ by up to
 * .4, those with guitars an octave apart by 3 to 10, and one with a clean sound by 1 (docs/experiments.md, "A guitar an octave up").
 */
const OCTAVE_APART = 2;
const OCTAVE = 12;
const LEAST = 1e-6;
/**
 * Of the octave, in log-odds, that the higher guitar and the room leave on the side of the lower one where strings ring: in the middle of a song it says
 * −.7 to .6 of power chords on two strings, and 1.5 to 2.2 of those on three (the same place).
 */
const HIGHER_LEAKS = 0.8;

/** Log-odds that the lowest note lies an octave over `bass`. */
function oddsOfOctaveUp({ logProbabilities }: ChordEvidence, bass: number): number {
  const share = (note: number): number => {
    const from = (note - LOWEST_BASS) * SHAPES;
    return logProbabilities.subarray(from, from + SHAPES).reduce((sum, log) => sum + Math.exp(log), LEAST);
  };
  return Math.log(share(bass + OCTAVE) / share(bass));
}

/** Null for one channel, and where no side plays an octave over the other. */
export function findLowerGuitar(
  { channels, sampleRate }: StereoSignal,
  strums: readonly HeardStrum[],
  offsetCents: number,
): LowerGuitar | null {
  const chords = strums.filter(
    ({ midi, timeS, endS }) =>
      endS - timeS >= SHORTEST_S &&
      midi[0] >= LOWEST_BASS &&
      POWER_CHORDS.includes(midi.map((note) => note - midi[0]).join()),
  );
  if (channels.length < 2 || chords.length < FEWEST) return null;
  const step = Math.ceil(chords.length / SAMPLED_STRUMS);
  const sampled = chords.filter((_, k) => k % step === 0);
  const sides = channels.map((mid) =>
    createEvidence({ mid, side: null }, sampleRate, offsetCents, chordWeights),
  );
  const [left, right] = sides.map(
    (side) =>
      sampled.reduce((sum, chord) => sum + oddsOfOctaveUp(side(chord), chord.midi[0]), 0) / sampled.length,
  );
  if (Math.abs(right - left) < OCTAVE_APART) return null;
  const lower = sides[right > left ? 0 : 1];
  return (both, span, palmMuted) => {
    const alone = lower(span);
    const { logProbabilities } = bothSay(both, alone);
    const leaks = palmMuted ? 0 : HIGHER_LEAKS;
    setDoublingOdds(
      logProbabilities,
      doublingOdds(alone.logProbabilities).map((odds) => odds - leaks),
    );
    return { ...both, logProbabilities };
  };
}
