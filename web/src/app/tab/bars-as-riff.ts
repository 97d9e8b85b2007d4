/** What is written over some bars of the recording, as one riff: whatever sections, passes and variations it comes from. */
import { MAX_FRET } from '@wild-needle/core/guitar';
import {
  passesOf,
  riffOfPass,
  riffTicks,
  ticksPerBeat,
  PLAIN_RIFF,
  type Pass,
  type Riff,
  type SongDocument,
  type Strum,
} from '@wild-needle/core/riff';

export interface BarsAsRiff {
  /** Its strums have the ids of their places, see `StrumInPass`. */
  readonly riff: Riff;
  /** As if these bars were a pass of it: from its ticks to seconds. */
  readonly pass: Pass;
  readonly firstBar: number;
}

/** Frets as a moved section plays them; where the neck ends, as they are written. */
function movedFrets(frets: Strum['frets'], by: number): Strum['frets'] {
  const moved = frets.map((f) => ({ ...f, fret: f.fret + by }));
  return moved.every((f) => f.fret >= 0 && f.fret <= MAX_FRET) ? moved : frets;
}

/** `bars` of the grid from one on, as many as there are; null where there is none. */
export function barsAsRiff(document: SongDocument, firstBar: number, bars: number): BarsAsRiff | null {
  const { grid } = document;
  const shown = grid.bars.slice(firstBar, firstBar + bars);
  const [first, last] = [shown.at(0), shown.at(-1)];
  if (!first || !last) return null;
  const startBeat = first.beat;
  const endBeat = last.beat + last.beats;
  const { unit } = first;
  const strums = document.sections.flatMap((section) => {
    const written = document.riffs.find((r) => r.id === section.riffId);
    if (!written) return [];
    return passesOf(section, written, grid)
      .filter((pass) => pass.startBeat < endBeat && pass.startBeat + pass.beats > startBeat)
      .flatMap((pass) =>
        riffOfPass(written, section, pass).strums.flatMap((strum): Strum[] => {
          const share = (strum.startTicks - pass.fromTicks) / (pass.toTicks - pass.fromTicks);
          const beat = pass.startBeat + share * pass.beats;
          if (beat < startBeat - 1e-6 || beat >= endBeat - 1e-6) return [];
          return [
            {
              ...strum,
              id: `${section.id}/${pass.index}/${strum.id}`,
              startTicks: Math.round((beat - startBeat) * ticksPerBeat(unit)),
              frets: movedFrets(strum.frets, pass.transpose),
            },
          ];
        }),
      );
  });
  const riff: Riff = {
    ...PLAIN_RIFF,
    id: 'bars',
    letter: '',
    name: '',
    // Beats of the first bar's unit all along: time is drawn by beats.
    bars: shown.map((bar, i) => ({
      beats: (shown[i + 1]?.beat ?? endBeat) - bar.beat,
      unit,
    })),
    strums: strums.sort((a, b) => a.startTicks - b.startTicks),
  };
  const toTicks = riffTicks(riff);
  const pass: Pass = {
    sectionId: '',
    riffId: riff.id,
    transpose: 0,
    index: 0,
    startBar: firstBar,
    bars: shown.length,
    startBeat,
    beats: endBeat - startBeat,
    fromTicks: 0,
    toTicks,
    startS: grid.beatsS[startBeat] ?? 0,
    endS: grid.beatsS[endBeat] ?? grid.beatsS.at(-1) ?? 0,
  };
  return { riff, pass, firstBar };
}
