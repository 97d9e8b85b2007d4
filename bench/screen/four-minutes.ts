/** A song of four minutes: the demo song of 63 s, four times over. */
import { DEMO_SONGS } from '../../demo/riffs/songs';

type DemoSong = (typeof DEMO_SONGS)[number];

export const TITLE = 'Four minutes';
const TIMES = 4;

export function longSong(times = TIMES): DemoSong {
  const song = DEMO_SONGS[0];
  const { grid, sections } = song.document;
  const beats = grid.beatsS.length - 1;
  const beatS = grid.beatsS[1] - grid.beatsS[0];
  const round = Array.from({ length: times }, (_, i) => i);
  const document = {
    ...song.document,
    title: TITLE,
    grid: {
      beatsS: Array.from({ length: beats * times + 1 }, (_, i) => grid.beatsS[0] + i * beatS),
      bars: round.flatMap((i) => grid.bars.map((b) => ({ ...b, beat: b.beat + i * beats }))),
    },
    sections: round.flatMap((i) =>
      sections.map((s) => ({
        ...s,
        id: `${s.id}-${i}`,
        startBar: s.startBar + i * grid.bars.length,
      })),
    ),
  };
  return { ...song, document, played: document };
}
