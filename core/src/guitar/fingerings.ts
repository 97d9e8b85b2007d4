/**
 * Ways to play what a strum sounds, best first, each with what speaks for it and against it: what was heard, how far the hand
 * moves in the riff, how far it stretches, and whether it is a shape that the player has.
 */
import type { MidiNote, StringNumber } from '../units';
import { candidateVoicings } from './finger';
import { applyHabits } from './habits';
import { fingersOf, quietStrings, type FingerPlace, type QuietString } from './hand';
import { costsThrough } from './hand-path';
import { handSpanMm } from './reach';
import { isOwnShape, type OwnShape } from './shapes';
import { MAX_FRET, soundingNotes, type StringFret, type Tuning } from './tuning';
import { findVoicings, type Voicing } from './voicing';

/** How strongly each note was heard, 0 to 1; null where nothing was measured. */
export type HeardStrength = ((midi: MidiNote) => number) | null;

export type FingeringReason =
  /** Sounds the written notes. */
  | { readonly kind: 'same-notes' }
  | { readonly kind: 'adds'; readonly midi: MidiNote; readonly heard: number | null }
  | { readonly kind: 'leaves-out'; readonly midi: MidiNote; readonly heard: number | null }
  | { readonly kind: 'open-strings'; readonly count: number }
  | { readonly kind: 'one-finger' }
  | { readonly kind: 'nearest' }
  /** So many frets from where the hand comes from. */
  | { readonly kind: 'moves'; readonly frets: number }
  /** Sounds on thicker strings than the other ways. */
  | { readonly kind: 'fullest' }
  | { readonly kind: 'wide-span'; readonly mm: number }
  | { readonly kind: 'own-shape'; readonly name: string }
  /** The analysis read the strum so with this probability. */
  | { readonly kind: 'heard-as'; readonly probability: number };

export interface Fingering {
  readonly frets: readonly StringFret[];
  readonly notes: readonly MidiNote[];
  readonly position: number | null;
  /** How well its notes fit what was heard, 0 to 1; null where nothing was measured. */
  readonly fits: number | null;
  readonly reasons: readonly FingeringReason[];
  readonly fingers: readonly FingerPlace[] | null;
  readonly quiet: readonly QuietString[];
  readonly handSpanMm: number;
}

export interface FingeringOptions {
  readonly tuning: Tuning;
  readonly heard: HeardStrength;
  readonly ownShapes: readonly OwnShape[];
  /** Other readings of the strum, likeliest first. */
  readonly alternatives: readonly { readonly midi: readonly MidiNote[]; readonly probability: number }[];
}

/** Weight of the evidence against effort: notes that are surely not there cost as much as a shift over the whole neck. */
const EVIDENCE_WEIGHT = 2;
/** Leaving or adding a note without anything heard for it. */
const CHANGED_NOTES_COST = 1.5;
/** A shape that the player has is taken up to this much more effort. */
const OWN_SHAPE_BONUS = 0.6;
/** A fret hand that spans more than this low on the neck is a stretch worth a word (common practice: four frets). */
const WIDE_MM = 100;
/** Ways that are kept. */
const MOST_FINGERINGS = 8;
/** Of a note that is there or not, nothing is ever certain. */
const LEAST = 0.02;

/** The written notes, and what is often meant instead: the top note left out, the octave of the root added. */
function noteSets(notes: readonly MidiNote[]): MidiNote[][] {
  const sorted = [...new Set(notes)].sort((a, b) => a - b);
  const sets = [sorted];
  if (sorted.length > 1) sets.push(sorted.slice(0, -1));
  if (sorted.length > 2) sets.push(sorted.slice(1));
  const octave = sorted[0] + 12;
  if (sorted.length > 0 && !sorted.includes(octave)) sets.push([...sorted, octave].sort((a, b) => a - b));
  return sets;
}

/** Geometric mean over all notes in question of how likely each is as the set says it. */
function fitOf(
  notes: readonly MidiNote[],
  asked: readonly MidiNote[],
  heard: (midi: MidiNote) => number,
): number {
  const sum = asked.reduce((total, midi) => {
    const strength = heard(midi);
    return total + Math.log(Math.max(LEAST, notes.includes(midi) ? strength : 1 - strength));
  }, 0);
  return Math.exp(sum / asked.length);
}

function keyOf(frets: readonly StringFret[]): string {
  return frets.map((f) => `${f.string}:${f.fret}`).join();
}

/** A pressed grip as a candidate for the path, also when it doubles a note as unison pairs do. */
export function voicingOf(frets: readonly StringFret[], tuning: Tuning): Voicing | null {
  if (frets.length === 0) return null;
  const found = findVoicings(soundingNotes(tuning, frets), tuning, { maxFret: MAX_FRET, maxSpan: MAX_FRET });
  const same = found.find((v) => keyOf(v.frets) === keyOf(frets));
  const pressed = frets.filter((f) => f.fret > 0).map((f) => f.fret);
  const effort = found[0]?.effort ?? 0;
  return same ?? { frets, effort, position: pressed.length > 0 ? Math.min(...pressed) : null };
}

/** Ways for the notes of each strum of a riff, for the path through it; strums without notes are left out. */
function layersOf(
  riff: readonly (readonly StringFret[])[],
  tuning: Tuning,
): { readonly layers: Voicing[][]; readonly layerOf: (number | null)[] } {
  const layers: Voicing[][] = [];
  const layerOf = riff.map((frets): number | null => {
    if (frets.length === 0) return null;
    const found = candidateVoicings(soundingNotes(tuning, frets), tuning);
    const own = voicingOf(frets, tuning);
    if (found.length === 0 && !own) return null;
    layers.push(found.length > 0 ? found : [own!]);
    return layers.length - 1;
  });
  return { layers, layerOf };
}

/**
 * Ways to play one strum of a riff. `riff`: what each strum presses, in order of time; `index`: the strum in question; the
 * others may be played anywhere that suits. Fingerings on the whole neck; what is written is always among them.
 */
export function rankFingerings(
  riff: readonly (readonly StringFret[])[],
  index: number,
  { tuning, heard, ownShapes, alternatives }: FingeringOptions,
): Fingering[] {
  const written = riff[index] ?? [];
  if (written.length === 0) return [];
  const base = soundingNotes(tuning, written);
  const sets = [...noteSets(base), ...alternatives.map((a) => [...a.midi].sort((x, y) => x - y))];
  const asked = [...new Set(sets.flat())].sort((a, b) => a - b);
  const found = new Map<string, Voicing>();
  for (const set of sets) {
    for (const voicing of applyHabits(findVoicings(set, tuning, { maxFret: MAX_FRET }), tuning)) {
      if (fingersOf(voicing.frets) !== null) found.set(keyOf(voicing.frets), voicing);
    }
  }
  const own = voicingOf(written, tuning);
  if (own && !found.has(keyOf(written))) found.set(keyOf(written), own);
  const candidates = [...found.values()];
  const { layers, layerOf } = layersOf(riff, tuning);
  const layer = layerOf[index] ?? 0;
  const path = costsThrough(
    layers.map((l, k) => (k === layer ? candidates : l)),
    layer,
  );
  const least = Math.min(...path);
  const scored = candidates.map((voicing, c) => {
    const notes = soundingNotes(tuning, voicing.frets);
    const isSame =
      [...new Set(notes)].sort((a, b) => a - b).join() === [...new Set(base)].sort((a, b) => a - b).join();
    const fits = heard ? fitOf(notes, asked, heard) : null;
    const shape = ownShapes.find((s) => isOwnShape(s, voicing.frets, tuning)) ?? null;
    const evidence = fits === null ? (isSame ? 0 : CHANGED_NOTES_COST) : -EVIDENCE_WEIGHT * Math.log(fits);
    const cost = path[c] - least + evidence - (shape ? OWN_SHAPE_BONUS : 0);
    return { voicing, notes, isSame, fits, shape, cost, path: path[c] };
  });
  scored.sort((a, b) => a.cost - b.cost);
  const kept = scored.slice(0, MOST_FINGERINGS);
  const isWritten = (s: (typeof scored)[number]): boolean => keyOf(s.voicing.frets) === keyOf(written);
  if (!kept.some(isWritten)) kept[kept.length - 1] = scored.find(isWritten)!;

  const sameNotes = kept.filter((s) => s.isSame);
  const nearest = sameNotes.reduce<(typeof scored)[number] | null>(
    (best, s) => (!best || s.path < best.path ? s : best),
    null,
  );
  const thickness = ({ voicing }: (typeof scored)[number]): number =>
    voicing.frets.reduce((sum, f) => sum + f.string, 0) / voicing.frets.length;
  const fullest = sameNotes.reduce<(typeof scored)[number] | null>(
    (best, s) => (!best || thickness(s) > thickness(best) ? s : best),
    null,
  );
  const handAt = lastPosition(riff, index);

  return kept.map((entry): Fingering => {
    const { voicing, notes, isSame, fits, shape } = entry;
    const mm = Math.round(handSpanMm(voicing.frets, tuning.capo));
    const open = voicing.frets.filter((f) => f.fret === 0).length;
    const stopped = voicing.frets.filter((f) => f.fret > 0).map((f) => f.fret);
    const moved = handAt !== null && voicing.position !== null ? Math.abs(voicing.position - handAt) : 0;
    const reasons: FingeringReason[] = [];
    const strength = (midi: MidiNote): number | null => heard?.(midi) ?? null;
    if (shape) reasons.push({ kind: 'own-shape', name: shape.name });
    if (isSame) reasons.push({ kind: 'same-notes' });
    const reading = alternatives.find((a) => [...a.midi].sort((x, y) => x - y).join() === notes.join());
    if (reading && !isSame) reasons.push({ kind: 'heard-as', probability: reading.probability });
    for (const midi of notes) {
      if (!base.includes(midi)) reasons.push({ kind: 'adds', midi, heard: strength(midi) });
    }
    for (const midi of base) {
      if (!notes.includes(midi)) reasons.push({ kind: 'leaves-out', midi, heard: strength(midi) });
    }
    if (open > 0) reasons.push({ kind: 'open-strings', count: open });
    if (open === 0 && stopped.length > 1 && new Set(stopped).size === 1) reasons.push({ kind: 'one-finger' });
    if (sameNotes.length > 1 && entry === nearest) reasons.push({ kind: 'nearest' });
    else if (moved > 0) reasons.push({ kind: 'moves', frets: moved });
    if (sameNotes.length > 1 && entry === fullest && entry !== nearest) reasons.push({ kind: 'fullest' });
    if (mm >= WIDE_MM) reasons.push({ kind: 'wide-span', mm });
    return {
      frets: voicing.frets,
      notes,
      position: voicing.position,
      fits,
      reasons,
      fingers: fingersOf(voicing.frets),
      quiet: quietStrings(voicing.frets, tuning),
      handSpanMm: mm,
    };
  });
}

/** Lowest pressed fret of the last strum before this one that presses any. */
function lastPosition(riff: readonly (readonly StringFret[])[], index: number): number | null {
  for (let k = index - 1; k >= 0; k--) {
    const pressed = riff[k].filter((f) => f.fret > 0).map((f) => f.fret);
    if (pressed.length > 0) return Math.min(...pressed);
  }
  return null;
}

/** Which strings of the tuning sound a note, with the fret; for looking it up on the neck. */
export function placesOf(midi: MidiNote, tuning: Tuning, maxFret = MAX_FRET): StringFret[] {
  const count = tuning.stringsMidi.length;
  return tuning.stringsMidi.flatMap((open, i): StringFret[] => {
    const fret = midi - open - tuning.capo;
    const string: StringNumber = count - i;
    return fret >= 0 && fret <= maxFret ? [{ string, fret }] : [];
  });
}
