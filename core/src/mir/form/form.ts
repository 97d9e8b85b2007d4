/**
 * Sections, riffs and passes: the song is cut into segments (`segmentation.ts`), and segments that play the same riff, also
 * moved by some semitones, get one letter (`same-riff.ts`); which bars are the same across riffs is told beside them (`same-bars.ts`).
 */
import { bisectRight } from 'd3-array';
import { EARLY_S } from '../../units';
import { barContents } from './bar-contents';
import type { BarChroma } from './bar-chroma';
import type { BarSpectrum } from './bar-spectrum';
import type { OnsetStrength } from '../onsets/onset-strength';
import { joinHalfRiffs } from './half-riffs';
import { markLoneParts } from './lone-parts';
import { barsOf, type Part } from './part';
import { toRiffLengths } from './riff-length';
import { ringingBars, ringOut } from './ring-out';
import { findSameBars } from './same-bars';
import { findSameRiffs, segmentLikeness } from './same-riff';
import { segmentBars, type Segmentation } from './segmentation';
import { songLikeness } from './song-likeness';
import { onsetNovelty } from './onset-novelty';
import { cutAtTextureChanges } from './texture-changes';
import type { HeardSection, HeardStrum } from '../types';

/** Another start is told when it is this probable and this near. */
const OR_ELSE = 0.15;
const NEARBY_BARS = 4;

export interface HeardForm {
  readonly sections: readonly HeardSection[];
  /** For each bar the earliest that it is the same as, see `same-bars.ts`; itself where it is the first or alone. */
  readonly sameAsBar: readonly number[];
}

/** What the whole band plays: its onsets, and of every bar the chroma and the spectrum. */
export interface BandSound {
  readonly strength: OnsetStrength;
  readonly harmony: readonly BarChroma[];
  readonly spectra: readonly BarSpectrum[];
}

/** Bars are [downbeats[i], downbeats[i + 1]); strums before the first downbeat belong to no bar. `band` null leaves out what is not struck. */
export function findForm(
  strums: readonly HeardStrum[],
  downbeatsS: readonly number[],
  durationS: number,
  band: BandSound | null = null,
): HeardForm {
  const all = barContents(strums, downbeatsS, durationS);
  const first = all.findIndex((bar) => bar.length > 0);
  if (downbeatsS.length < 2 || first < 0) return { sections: [], sameAsBar: [...all.keys()] };
  const last = all.findLastIndex((bar) => bar.length > 0);
  const changes = onsetNovelty(band?.strength ?? null, downbeatsS, durationS).slice(first, last + 1);
  const harmony = band?.harmony.slice(first, last + 1) ?? null;
  const likeness = songLikeness(all.slice(first, last + 1), harmony, changes);
  const segmentation = segmentBars(likeness, changes);
  const { segments } = segmentation;
  const riffs = findSameRiffs(likeness, segments);
  const drawn = toRiffLengths(
    likeness,
    segments.map((segment, s) => ({
      ...segment,
      cutBars: 0,
      riff: riffs[s].first,
      shift: riffs[s].shift,
      returns: true,
      likeRiff:
        riffs[s].first === s
          ? null
          : segmentLikeness(likeness, segments[riffs[s].first], segment, riffs[s].shift),
    })),
  );
  const sameAs = findSameBars(likeness, drawn, last + 1 - first);
  const clarity = clarityByBar(strums, downbeatsS).slice(first, last + 1);
  const played = markLoneParts(joinHalfRiffs(drawn, sameAs), sameAs, clarity, changes);
  const ringing = ringingBars(strums[strums.length - 1].endS, downbeatsS, last, durationS);
  const parts = ringOut(
    band ? cutAtTextureChanges(played, band.spectra.slice(first), likeness) : played,
    ringing,
  );
  const letters = lettersOf(parts);
  const taken = new Set([...segments, ...parts].map((part) => part.start));
  return {
    sections: parts.map(({ start, riff, shift, ...part }): HeardSection => {
      const letter = letters.get(riff) ?? '';
      // Riffs are moved up the neck by up to six frets or down by fewer (common practice).
      const semitones = shift > 6 ? shift - 12 : shift;
      const startBar = first + start;
      return {
        startS: downbeatsS[startBar],
        endS: downbeatsS[startBar + barsOf({ start, riff, shift, ...part })] ?? durationS,
        label: semitones === 0 ? letter : `${letter}${semitones > 0 ? '+' : ''}${semitones}`,
        transposeOf: semitones === 0 ? null : { label: letter, semitones },
        startBar,
        barsPerPass: part.barsPerPass,
        passes: part.passes,
        cutBars: part.cutBars,
        returns: part.returns,
        startProbability: part.startProbability ?? Math.min(1, segmentation.cutProbability[start]),
        orElseBars: elsewhere(segmentation, start, taken),
        likeRiff: part.likeRiff,
      };
    }),
    sameAsBar: all.map((_, b) => (b < first || b > last ? b : first + sameAs[b - first])),
  };
}

/** Letters of riffs in the order in which they come, those of parts that nothing comes round in behind them. */
function lettersOf(parts: readonly Part[]): Map<number, string> {
  const inOrder = [...parts.filter((p) => p.returns), ...parts.filter((p) => !p.returns)].map((p) => p.riff);
  return new Map([...new Set(inOrder)].map((riff, i) => [riff, letterOf(i)]));
}

/** Mean confidence of the strums of each bar; 0 where there are none. */
function clarityByBar(strums: readonly HeardStrum[], downbeatsS: readonly number[]): number[] {
  const sums = downbeatsS.map(() => ({ confidence: 0, strums: 0 }));
  for (const { timeS, confidence } of strums) {
    const bar = bisectRight(downbeatsS, timeS + EARLY_S) - 1;
    if (bar < 0) continue;
    sums[bar].confidence += confidence;
    sums[bar].strums++;
  }
  return sums.map(({ confidence, strums: count }) => confidence / Math.max(1, count));
}

/** Where else nearby this part may begin, in bars from there; where others begin is no other place for this one. */
function elsewhere({ cutProbability }: Segmentation, at: number, taken: ReadonlySet<number>): number | null {
  let orElseBars: number | null = null;
  let likeliest = OR_ELSE;
  for (let by = -NEARBY_BARS; by <= NEARBY_BARS; by++) {
    const bar = at + by;
    const probability = bar > 0 && bar < cutProbability.length - 1 ? cutProbability[bar] : 0;
    if (!taken.has(bar) && probability > likeliest) [orElseBars, likeliest] = [by, probability];
  }
  return orElseBars;
}

/** A to Z, then AA, AB … */
function letterOf(index: number): string {
  const letter = String.fromCharCode(65 + (index % 26));
  return index < 26 ? letter : letterOf(Math.floor(index / 26) - 1) + letter;
}
