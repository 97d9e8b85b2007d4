/** What was heard in a pass, kept as a variation of its riff. */
import { writtenVoicings, type Tuning } from '../guitar';
import { barStartsTicks, riffTicks, strumNotes, type Riff, type Strum, type Variation } from '../riff';
import { identifyChord } from '../theory';
import type { MidiNote, Ticks } from '../units';
import { chordDistance, OTHER_CHORD_FROM, type Difference } from './compare';
import { placeStrokes, type HeardStroke } from './place';
import { trustOf, writeStrums } from './write';

/**
 * What was heard in a pass as a variation of the riff: from the bar of its first difference to the end of the bar of its
 * last; strums that agree are kept as they are written. Null without a difference.
 */
export function variationOfPass(
  riff: Riff,
  heard: readonly HeardStroke[],
  differences: readonly Difference[],
  tuning: Tuning,
  { id, name, newId }: { readonly id: string; readonly name: string; readonly newId: () => string },
): Variation | null {
  if (differences.length === 0) return null;
  const starts = [...barStartsTicks(riff), riffTicks(riff)];
  const places = differences.map((d) => Math.max(0, d.ticks));
  const fromTicks = starts.findLast((t) => t <= places[0])!;
  const endsEarly = differences.some((d) => d.kind === 'early-end');
  const last = endsEarly ? riffTicks(riff) - 1 : places.at(-1)!;
  const toTicks = starts.find((t) => t > last) ?? riffTicks(riff);
  const dropped = new Set(differences.filter((d) => d.kind === 'missing').map((d) => d.strumId));
  const earlyEnd = differences.find((d) => d.kind === 'early-end')?.ticks ?? Infinity;
  const changed = new Map(
    differences.flatMap((d) => (d.strumId !== null && d.heard !== null ? [[d.strumId, heard[d.heard]]] : [])),
  );
  const inside = (ticks: Ticks): boolean => ticks >= fromTicks && ticks < toTicks;

  const fretsOf = (midi: readonly MidiNote[]): Strum['frets'] =>
    writtenVoicings(midi, tuning)[0]?.frets ?? [];
  const kept = riff.strums
    .filter((s) => inside(s.startTicks) && !dropped.has(s.id) && s.startTicks < earlyEnd)
    .map((strum): Strum => {
      const sounded = changed.get(strum.id);
      const copy = { ...strum, id: newId() };
      if (!sounded) return copy;
      const written = identifyChord(strumNotes(strum, tuning));
      const isOtherChord = chordDistance(written, identifyChord(sounded.midi)) >= OTHER_CHORD_FROM;
      return {
        ...copy,
        ...(isOtherChord && { frets: fretsOf(sounded.midi), writtenAs: null }),
        dead: sounded.dead,
        palmMute: sounded.palmMuted && !sounded.dead,
        trust: trustOf(sounded.confidence),
      };
    });
  const extra = differences.flatMap((d) => (d.kind === 'extra' && d.heard !== null ? [heard[d.heard]] : []));
  const taken = new Set(kept.map((s) => s.startTicks));
  const free = placeStrokes(riff, extra).filter((s) => inside(s.ticks) && !taken.has(s.ticks));
  const added = writeStrums(free, tuning, newId);
  const strums = [...kept, ...added].sort((a, b) => a.startTicks - b.startTicks);
  const guitar2 = riff.guitar2.filter((s) => inside(s.startTicks)).map((s) => ({ ...s, id: newId() }));
  return { id, name, fromTicks, toTicks, strums, guitar2 };
}
