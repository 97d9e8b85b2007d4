/** Sounding notes laid on strings: of all ways to play each chord the one that lets the hand move least along the song. */
import { chooseVoicings, writtenVoicings, type Tuning } from '../guitar';
import type { MidiNote } from '../units';
import type { Strum } from '../riff';

/** A strum with the notes that are still to find their strings; none where they have them. */
export interface UnfingeredStrum {
  readonly strum: Strum;
  readonly midi: readonly MidiNote[];
}

/** In order of time. What the tuning can't play loses its highest notes, one by one; `lost` counts them. */
export function fingerNotes(
  strums: readonly UnfingeredStrum[],
  tuning: Tuning,
): { readonly strums: Strum[]; readonly lost: number } {
  const voicings = new Map<string, ReturnType<typeof writtenVoicings>>();
  const candidatesOf = (midi: readonly MidiNote[]): ReturnType<typeof writtenVoicings> => {
    const key = midi.join();
    const found = voicings.get(key) ?? writtenVoicings(midi, tuning);
    voicings.set(key, found);
    return found;
  };
  let lost = 0;
  const layers = strums.map(({ midi }) => {
    for (let count = midi.length; count > 0; count--) {
      const found = candidatesOf(midi.slice(0, count));
      if (found.length > 0) {
        lost += midi.length - count;
        return found;
      }
    }
    lost += midi.length;
    return [];
  });
  const chosen = chooseVoicings(layers);
  return {
    lost,
    strums: strums.map(({ strum, midi }, i) =>
      midi.length === 0 ? strum : { ...strum, frets: chosen[i]?.frets ?? [] },
    ),
  };
}
