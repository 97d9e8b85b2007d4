/** Every strum of every pass as it is played: what is held against the recording, strum by strum. */
import type { MidiNote, Ticks } from '../units';
import type { Riff, Section, SettledStrum, SongDocument, Strum } from './document';
import { soundingEndTicks } from './edit';
import { passesOf, passTicksToSeconds, type Pass } from './passes';
import { settledAt, signatureOf } from './settled';
import { isBlank, isStruck, strumNotes } from './strum';
import { riffOfPass } from './variation';

export interface StrumInPass {
  /** Of the place; the same as long as section, pass and strum are. */
  readonly id: string;
  readonly section: Section;
  readonly pass: Pass;
  /** The riff as this pass plays it. */
  readonly riff: Riff;
  readonly strum: Strum;
  readonly ticks: Ticks;
  readonly timeS: number;
  /** Where it stops sounding. */
  readonly endS: number;
  /** Sounding notes in this section, lowest first; empty for a dead stroke. */
  readonly midi: readonly MidiNote[];
  /** See {@link signatureOf}. */
  readonly written: string;
  readonly settled: SettledStrum['answer'] | null;
}

/** What guitar 1 strikes, in order of time. Rests, places that are still blank, and what is slid or hammered are left out. */
export function strumsInPasses(document: SongDocument): StrumInPass[] {
  const { grid, riffs, sections, tuning } = document;
  return sections.flatMap((section) => {
    const written = riffs.find((r) => r.id === section.riffId);
    if (!written) return [];
    return passesOf(section, written, grid).flatMap((pass) => {
      const riff = riffOfPass(written, section, pass);
      return riff.strums.flatMap((strum, i): StrumInPass[] => {
        if (!isStruck(strum) || isBlank(strum)) return [];
        const signature = signatureOf(strum, tuning);
        const ticks = strum.startTicks;
        return [
          {
            id: `${section.id}/${pass.index}/${strum.id}`,
            section,
            pass,
            riff,
            strum,
            ticks,
            timeS: passTicksToSeconds(pass, grid, ticks),
            endS: passTicksToSeconds(pass, grid, soundingEndTicks(riff, i)),
            midi: strumNotes(strum, tuning).map((note) => note + pass.transpose),
            written: signature,
            settled: settledAt(section, { pass: pass.index, ticks, written: signature })?.answer ?? null,
          },
        ];
      });
    });
  });
}

/** How many strums of a section's passes were checked: settled by ear, or written or confirmed by hand; by section. */
export function checkedBySection(
  document: SongDocument,
): ReadonlyMap<string, { readonly checked: number; readonly of: number }> {
  const counts = new Map<string, { checked: number; of: number }>();
  for (const { section, settled, strum } of strumsInPasses(document)) {
    const count = counts.get(section.id) ?? { checked: 0, of: 0 };
    count.of++;
    if (settled === 'kept' || (settled === null && strum.trust === 'checked')) count.checked++;
    counts.set(section.id, count);
  }
  return counts;
}
