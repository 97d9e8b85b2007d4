/** A written song played out: every strum of every pass with its time in the recording. */
import type { MidiNote } from '../units';
import { soundingNote } from '../guitar';
import { passesOf, passTicksToSeconds, soundingEndTicks, type SongDocument } from '../riff';

export interface PlayedStrum {
  readonly timeS: number;
  readonly endS: number;
  /** Sounding note per struck string, lowest string first. */
  readonly notes: readonly MidiNote[];
  readonly palmMute: boolean;
  readonly dead: boolean;
}

/** In order of time. Sections that are moved sound moved, whatever the frets. */
export function performDocument(document: SongDocument): PlayedStrum[] {
  const played: PlayedStrum[] = [];
  for (const section of document.sections) {
    const riff = document.riffs.find((r) => r.id === section.riffId);
    if (!riff) continue;
    for (const pass of passesOf(section, riff, document.grid)) {
      riff.strums.forEach((strum, i) => {
        const at = (ticks: number): number => passTicksToSeconds(pass, riff, document.grid, ticks);
        played.push({
          timeS: at(strum.startTicks),
          endS: at(soundingEndTicks(riff, i)),
          notes: strum.frets.map((f) => soundingNote(document.tuning, f) + section.transpose),
          palmMute: strum.palmMute,
          dead: strum.dead,
        });
      });
    }
  }
  return played.sort((a, b) => a.timeS - b.timeS);
}
