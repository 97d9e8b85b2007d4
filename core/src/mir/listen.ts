/**
 * Everything that is measured of a recording, in order: pitch offset, attacks, chords, damping, pulse, bars,
 * key, form. Pure and synchronous; run it in a worker.
 */
import { findBars } from './bars';
import { extendBeats, trackTempo } from './beats';
import { CHORD_SHAPES } from './chord-templates';
import { createChordRecogniser, type RecognisedChord, type StrumSpan } from './chord-recognition';
import { measureDamping } from './damping';
import { findSections } from './form';
import { estimateKey } from './key-estimate';
import { computeOnsetStrength, type OnsetStrength } from './onset-strength';
import { detectOnsets } from './onsets';
import { findStrokes } from './restrikes';
import { estimateReferenceOffset } from './reference-offset';
import type { BeatGrid, HeardSection, HeardStrum, KeyEstimate, ReferenceOffset, StereoSignal } from './types';

export interface Heard {
  readonly durationS: number;
  /** Null when nothing tonal sounds. */
  readonly reference: ReferenceOffset | null;
  /** Null when there is no pulse to follow. */
  readonly grid: BeatGrid | null;
  readonly strums: readonly HeardStrum[];
  readonly key: KeyEstimate | null;
  readonly sections: readonly HeardSection[];
}

/** What is being done, in words for the screen, and the share of the whole, 0 to 1. */
export type OnProgress = (share: number, doing: string) => void;

/** Share of the energy in the side signal from which on two guitars left and right may be assumed. */
const WIDE_SHARE = 0.02;
/** The side signal holds the guitars without bass and singer, the mid one holds what they have in common. */
const SIDE_WEIGHT = 0.5;
/** Strums end at the next one, at the latest after this long. */
const MAX_STRUM_S = 6;

function mix(a: Float32Array, b: Float32Array, sign: 1 | -1): Float32Array {
  return a.map((v, i) => 0.5 * (v + sign * b[i]));
}

function energy(samples: Float32Array): number {
  return samples.reduce((sum, v) => sum + v * v, 0);
}

function addStrength(a: OnsetStrength, b: OnsetStrength): OnsetStrength {
  const add = (x: Float32Array, y: Float32Array): Float32Array => x.map((v, i) => v + y[i]);
  return {
    frameRate: a.frameRate,
    curves: {
      low: a.curves.low,
      body: add(a.curves.body, b.curves.body),
      edge: add(a.curves.edge, b.curves.edge),
    },
  };
}

/** Each strum lasts until the next one. */
function spansFrom(onsetsS: readonly number[], durationS: number): StrumSpan[] {
  return onsetsS.map((timeS, k) => ({
    timeS,
    endS: Math.min(onsetsS[k + 1] ?? durationS, timeS + MAX_STRUM_S, durationS),
  }));
}

function rootOf({ bass, shapeIndex }: RecognisedChord): number {
  return (bass + CHORD_SHAPES[shapeIndex].rootAbove) % 12;
}

/** Indices of candidates that are strokes: the level steps up, or the chord is another one than before. */
function keepStrokes(chords: readonly RecognisedChord[], isStroke: readonly boolean[]): number[] {
  const kept: number[] = [];
  chords.forEach((chord, k) => {
    const before = kept.at(-1);
    if (before === undefined || isStroke[k] || rootOf(chord) !== rootOf(chords[before])) kept.push(k);
  });
  return kept;
}

export function listen(
  { channels, sampleRate }: StereoSignal,
  onProgress: OnProgress = () => undefined,
): Heard {
  const durationS = channels[0].length / sampleRate;
  const [left, right] = [channels[0], channels[1] ?? channels[0]];
  const mid = channels.length > 1 ? mix(left, right, 1) : left;
  const side = channels.length > 1 ? mix(left, right, -1) : null;
  const wide = side !== null && energy(side) > WIDE_SHARE * energy(mid);

  onProgress(0.02, 'Listening for the pitch of the recording');
  const reference = estimateReferenceOffset(wide ? side : mid, sampleRate);

  onProgress(0.15, 'Listening for the strokes');
  const midStrength = computeOnsetStrength(mid, sampleRate);
  // Drums stand in the centre: where guitars are panned, their attacks are read from the sides.
  const strokes = wide ? computeOnsetStrength(side, sampleRate) : midStrength;
  const strength = wide ? addStrength(midStrength, strokes) : midStrength;
  const guitars = wide ? side : mid;
  const candidates = spansFrom(detectOnsets(guitars, sampleRate, strokes), durationS);

  onProgress(0.35, 'Naming the chords');
  const signals = wide
    ? [
        { samples: mid, weight: 1 - SIDE_WEIGHT, hasBass: true },
        { samples: side, weight: SIDE_WEIGHT, hasBass: false },
      ]
    : [{ samples: mid, weight: 1, hasBass: true }];
  const recognise = createChordRecogniser(sampleRate);
  const named = recognise(signals, candidates, reference?.cents ?? 0, (k) =>
    onProgress(0.4 + (0.5 * k) / candidates.length, 'Naming the chords'),
  );
  const kept = keepStrokes(
    named,
    findStrokes(
      guitars,
      sampleRate,
      candidates.map((c) => c.timeS),
    ),
  );
  const spans = spansFrom(
    kept.map((k) => candidates[k].timeS),
    durationS,
  );
  const chords = kept.map((k) => named[k]);

  onProgress(0.92, 'Listening for mutes');
  const damping = measureDamping(guitars, sampleRate, spans);
  const strums = spans.map(({ timeS }, k): HeardStrum => {
    const { dead, palmMuted, endS } = damping[k];
    const { bass, shapeIndex, confidence } = chords[k];
    const shape = CHORD_SHAPES[shapeIndex];
    return dead
      ? { timeS, endS, midi: [], rootPc: null, quality: null, palmMuted: false, dead, confidence: 0.6 }
      : {
          timeS,
          endS,
          midi: shape.notes.map((n) => bass + n),
          rootPc: (bass + shape.rootAbove) % 12,
          quality: shape.quality,
          palmMuted,
          dead,
          confidence,
        };
  });

  onProgress(0.95, 'Counting beats and bars');
  const beats = trackTempo(strength);
  let grid: BeatGrid | null = null;
  if (beats) {
    const beatsS = extendBeats(beats.beatsS, durationS);
    grid = { tempoBpm: beats.tempoBpm, beatsS, ...findBars(beatsS, strums, strength) };
  }
  onProgress(0.98, 'Comparing the riffs');
  const sections = grid ? findSections(strums, grid.downbeatsS, durationS) : [];
  onProgress(1, 'Done');
  return { durationS, reference, grid, strums, key: estimateKey(strums), sections };
}
