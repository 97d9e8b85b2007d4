/**
 * The strums of one guitar, or of all together: candidates, which of them are strokes, what sounds in each. Heard once
 * from what each instant says alone, and again with what alike places say (see `stroke-places.ts`, `pool-strokes.ts`,
 * `chord-decoding.ts`).
 */
import { identifyChord } from '../theory';
import type { AlikeGroup } from './alike';
import { gripPulls } from './grips';
import { decodeChords, type DecodedChord } from './chord-decoding';
import { CHORD_FORMS } from './chord-forms.data';
import type { OnsetStrength } from './onset-strength';
import { poolStrokes } from './pool-strokes';
import { settleChords, settleStrokes, type Said, type Settled } from './settled';
import { findSoundingEnds, spansFrom, type StrumSpan } from './sounding-end';
import type { MidSide } from './stereo';
import { findStrokeCandidates } from './stroke-candidates';
import { weighPlaces } from './stroke-places';
import { chooseStrokes, createStrokeNetwork, strokeProbability, type StrokeProbabilities } from './strokes';
import { createEvidence } from './strum-evidence';
import type { HeardStrum } from './types';
import chordWeights from './weights/chords.json';
import strokeWeights from './weights/strokes.json';

export interface StrumHearing {
  /** Of everything that sounds: for beats and bars. */
  readonly strength: OnsetStrength;
  /** With what is known of the song, or null at first. */
  hear(known: KnownForm | null, onShare?: (share: number) => void): HeardStrums;
}

/** What a first hearing has told of the song. */
export interface KnownForm {
  readonly beatsS: readonly number[];
  /** For ascending instants, those at the same place of the same riff. */
  alikeOf(timesS: readonly number[]): readonly AlikeGroup[];
}

export interface HeardStrums {
  readonly strums: readonly HeardStrum[];
  /** Probability that each of them is a stroke at all. */
  readonly sureness: readonly number[];
}

/**
 * A stroke is dead from this share of its probability on: what is dead and called ringing stands in the tab with a chord that
 * nobody played, what rings and is called dead only lacks its own.
 */
const DEAD_FROM = 1 / 3;

function describe(
  { timeS, endS }: StrumSpan,
  stroke: StrokeProbabilities,
  chord: DecodedChord,
  said: Said,
): HeardStrum {
  const settled = said === 'none' ? null : said;
  if (settled ? settled.dead : stroke.dead > DEAD_FROM * strokeProbability(stroke)) {
    const confidence = stroke.dead;
    return {
      timeS,
      endS,
      midi: [],
      rootPc: null,
      quality: null,
      palmMuted: false,
      dead: true,
      confidence,
      alternatives: [],
    };
  }
  const midi = settled?.midi ?? chord.midi;
  const named = identifyChord(midi);
  const rootPc = settled && named ? named.rootPc : (chord.bass + CHORD_FORMS[chord.form].rootAbove) % 12;
  return {
    timeS,
    endS,
    midi,
    rootPc,
    quality: named?.quality ?? 'other',
    palmMuted: stroke.palmMute > stroke.ring,
    dead: false,
    confidence: settled ? 1 : strokeProbability(stroke) * chord.confidence,
    alternatives: settled ? [] : chord.alternatives,
  };
}

export function createStrumHearing(
  midSide: MidSide,
  sampleRate: number,
  offsetCents: number,
  durationS: number,
  settled: Settled,
): StrumHearing {
  const found = findStrokeCandidates(midSide, sampleRate);
  const heardAlone = createStrokeNetwork(strokeWeights)(found.features);
  const { timesS, probabilities, says } = settleStrokes(found.timesS, heardAlone, settled);
  const evidenceOf = createEvidence(midSide, sampleRate, offsetCents, chordWeights);
  return {
    strength: found.strength,
    hear(known, onShare) {
      const strokes = known
        ? poolStrokes(weighPlaces(timesS, probabilities, known.beatsS, says), known.alikeOf(timesS), says)
        : probabilities;
      const chosen = chooseStrokes(timesS, strokes);
      const spans = spansFrom(
        chosen.map((k) => timesS[k]),
        durationS,
      );
      const endsS = findSoundingEnds(midSide.side ?? midSide.mid, sampleRate, spans);
      const said = chosen.map((k) => says[k]);
      const heard = spans.map((span, k) => {
        onShare?.(k / spans.length);
        return evidenceOf(span);
      });
      const evidence = settleChords(heard, said);
      const alike = known?.alikeOf(spans.map((s) => s.timeS));
      const pulls = gripPulls(
        evidence.map((e) => e.logProbabilities),
        chosen.map((c, k) => ({
          riff: alike?.[k].riff ?? '',
          palmMuted: strokes[c].palmMute > strokes[c].ring,
        })),
      );
      const chords = decodeChords(
        evidence,
        alike?.map((group) => group.members),
        pulls,
        spans.map((span) => span.timeS),
      );
      return {
        strums: chords.map((chord, k) =>
          describe({ timeS: spans[k].timeS, endS: endsS[k] }, strokes[chosen[k]], chord, said[k]),
        ),
        sureness: chosen.map((k) => strokeProbability(strokes[k])),
      };
    },
  };
}
