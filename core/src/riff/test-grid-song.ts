/** A song for the tests of the grid: sixteen bars of 4/4 at 100 bpm, a riff of two bars, four times, then twice a tone higher. */
import { PLAIN_RIFF, PLAIN_SECTION, PLAIN_SONG, PLAIN_STRUM, type SongDocument } from './document';
import { passesOf, passTicksToSeconds } from './passes';
import { riffOfPass } from './variation';

export const SONG: SongDocument = {
  ...PLAIN_SONG,
  grid: {
    beatsS: Array.from({ length: 66 }, (_, i) => 1 + 0.6 * i),
    bars: Array.from({ length: 16 }, (_, i) => ({ beat: 4 * i, beats: 4, unit: 4 })),
  },
  riffs: [
    {
      id: 'r',
      ...PLAIN_RIFF,
      letter: 'A',
      name: '',
      bars: [
        { beats: 4, unit: 4 },
        { beats: 4, unit: 4 },
      ],
      strums: [0, 480, 960, 2880, 5760].map((startTicks, i) => ({
        ...PLAIN_STRUM,
        id: String(i),
        startTicks,
        durationTicks: 480,
        frets: [{ string: 6, fret: i }],
        trust: 'checked',
      })),
    },
  ],
  sections: [
    { id: 's', name: 'Verse', riffId: 'r', startBar: 0, passes: 4, transpose: 0, ...PLAIN_SECTION },
    { id: 't', name: 'Chorus', riffId: 'r', startBar: 8, passes: 2, transpose: 2, ...PLAIN_SECTION },
  ],
};

/** When each strum of each pass sounds. */
export function timesOf(document: SongDocument): number[] {
  return document.sections
    .flatMap((section) => {
      const riff = document.riffs.find((r) => r.id === section.riffId)!;
      return passesOf(section, riff, document.grid).flatMap((pass) =>
        riffOfPass(riff, section, pass).strums.map((s) =>
          passTicksToSeconds(pass, document.grid, s.startTicks),
        ),
      );
    })
    .sort((a, b) => a - b);
}
