/** Double and half the tempo: what is written keeps its place in the sound, tick by tick. `whyNotDoubleTempo` and `whyNotHalve` say why it can't be done. */
import type { Bar, Riff, SongDocument, Strum } from './document';
import { COUNT_LIMITS, isWithin, RANGES } from './limits';
import type { Refusal } from './refusal';
import { sectionBars } from './section-span';

function scaleTicks(strums: readonly Strum[], factor: number): Strum[] {
  const placed = strums.map((s) => ({
    ...s,
    startTicks: Math.round(s.startTicks * factor),
    durationTicks: Math.max(1, Math.round(s.durationTicks * factor)),
  }));
  // Halving may put two strums on one tick: the later one gives way by a tick, nothing is lost.
  for (let k = 1; k < placed.length; k++) {
    const earliest = placed[k - 1].startTicks + 1;
    if (placed[k].startTicks < earliest) placed[k] = { ...placed[k], startTicks: earliest };
  }
  return placed;
}

/** A riff written in bars that are twice as many (factor 2) or half as many. */
function scaleRiff(riff: Riff, factor: 2 | 0.5, bars: Riff['bars']): Riff {
  return {
    ...riff,
    bars,
    strums: scaleTicks(riff.strums, factor),
    guitar2: scaleTicks(riff.guitar2, factor),
    variations: riff.variations.map((v) => ({
      ...v,
      fromTicks: Math.floor(v.fromTicks * factor),
      toTicks: Math.ceil(v.toTicks * factor),
      strums: scaleTicks(v.strums, factor),
      guitar2: scaleTicks(v.guitar2, factor),
    })),
    barNotes: riff.barNotes.map((n) => ({ ...n, bar: Math.floor(n.bar * factor) })),
    groups: riff.groups.map((g) => ({
      ...g,
      startBar: Math.floor(g.startBar * factor),
      bars: Math.max(1, Math.floor(g.bars * factor)),
    })),
  };
}

/** The beats and what lies half-way from one to the next; as long as the one before behind the last. */
function halvedBeats(beatsS: readonly number[]): number[] {
  return beatsS.flatMap((t, i) => {
    const next = beatsS[i + 1] ?? 2 * t - beatsS[i - 1];
    return [t, (t + next) / 2];
  });
}

/** Beats a minute that nobody counts beyond: at most two fast strokes of the pick fall on one (common practice). */
export const FASTEST_BPM = 400;

/** Why {@link doubleTempo} can't be done; null when it can. */
export function whyNotDoubleTempo({ grid: { beatsS, bars }, riffs }: SongDocument): Refusal | null {
  if (beatsS.length < 2) return { kind: 'no-beats' };
  const meanS = (beatsS[beatsS.length - 1] - beatsS[0]) / (beatsS.length - 1);
  if (meanS / 2 < 60 / FASTEST_BPM) return { kind: 'too-fast-to-double' };
  const { beats, bars: mostBars, barsOfRiff } = COUNT_LIMITS;
  if (2 * beatsS.length > beats || 2 * bars.length > mostBars) return { kind: 'too-many-bars-to-double' };
  const long = riffs.find((r) => 2 * r.bars.length > barsOfRiff);
  if (long) return { kind: 'too-long-to-double', letter: long.letter };
  // The half of the last beat may lie behind the latest time that a document takes.
  return isWithin(halvedBeats(beatsS.slice(-2))[3], RANGES.timeS) ? null : { kind: 'too-late-to-double' };
}

/** Twice as many beats and bars: what was heard as one bar are two. */
export function doubleTempo(document: SongDocument): SongDocument {
  if (whyNotDoubleTempo(document) !== null) return document;
  const { beatsS, bars } = document.grid;
  return {
    ...document,
    grid: {
      beatsS: halvedBeats(beatsS),
      bars: bars.flatMap(({ beat, beats, unit }): Bar[] => [
        { beat: 2 * beat, beats, unit },
        { beat: 2 * beat + beats, beats, unit },
      ]),
    },
    riffs: document.riffs.map((riff) =>
      scaleRiff(
        riff,
        2,
        riff.bars.flatMap((bar) => [bar, bar]),
      ),
    ),
    sections: document.sections.map((s) => ({
      ...s,
      startBar: 2 * s.startBar,
      passes: s.riffId === null ? 2 * s.passes : s.passes,
      skipBars: 2 * s.skipBars,
      cutBars: 2 * s.cutBars,
    })),
  };
}

/** Bars two by two, from the first that a section begins on; a last one without a partner is left out. */
function pairsOf({ grid: { bars }, sections }: SongDocument): (readonly [Bar, Bar])[] {
  const pairs: (readonly [Bar, Bar])[] = [];
  for (let i = (sections[0]?.startBar ?? 0) % 2; i + 1 < bars.length; i += 2)
    pairs.push([bars[i], bars[i + 1]]);
  return pairs;
}

/** Why {@link halveTempo} can't be done; null when it can. */
export function whyNotHalve(document: SongDocument): Refusal | null {
  const { riffs, sections } = document;
  const pairs = pairsOf(document);
  if (pairs.length === 0) return { kind: 'too-few-bars' };
  const odd = riffs.find((r) => r.bars.length % 2 === 1);
  if (odd) return { kind: 'odd-bars', letter: odd.letter };
  const first = sections[0]?.startBar ?? 0;
  const apart = sections.find((s) => (s.startBar - first) % 2 !== 0);
  if (apart) return { kind: 'starts-inside-bar', section: apart.name };
  const halved = sections.find((s) => sectionBars(document, s) % 2 !== 0 || s.skipBars % 2 !== 0);
  if (halved) return { kind: 'ends-inside-bar', section: halved.name };
  const parity = pairs[0][0].beat % 2;
  const last = document.grid.bars.at(-1);
  const uneven = pairs.find(([a, b]) => {
    const isCut = b === last && b.beats < a.beats;
    return (
      (a.beat - parity) % 2 !== 0 ||
      (a.beats !== b.beats && !isCut) ||
      a.unit !== b.unit ||
      b.beat !== a.beat + a.beats
    );
  });
  const bar = uneven && document.grid.bars.indexOf(uneven[0]) + 1;
  return bar ? { kind: 'uneven-bars', bar } : null;
}

/** Half as many beats and bars: two bars become one. A recording may end within a bar: then the last of the longer ones is cut too. */
export function halveTempo(document: SongDocument): SongDocument {
  if (whyNotHalve(document) !== null) return document;
  const pairs = pairsOf(document);
  const parity = pairs[0][0].beat % 2;
  const skipped = (document.sections[0]?.startBar ?? 0) % 2;
  return {
    ...document,
    grid: {
      beatsS: document.grid.beatsS.filter((_, i) => i % 2 === parity),
      bars: pairs.map(([{ beat, beats, unit }, next]) => ({
        beat: (beat - parity) / 2,
        beats: Math.floor((beats + next.beats) / 2),
        unit,
      })),
    },
    riffs: document.riffs.map((riff) =>
      scaleRiff(
        riff,
        0.5,
        riff.bars.filter((_, i) => i % 2 === 0),
      ),
    ),
    sections: document.sections.map((s) => ({
      ...s,
      startBar: (s.startBar - skipped) / 2,
      passes: s.riffId === null ? s.passes / 2 : s.passes,
      skipBars: s.skipBars / 2,
      cutBars: s.cutBars / 2,
    })),
  };
}
