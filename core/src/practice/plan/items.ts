/** What of a song can be practised by itself: each riff, at each height it is played at, the turns from one riff to the next, and the whole. */
import {
  endBarOf,
  passesOf,
  tempoAt,
  timeAtBeat,
  type Pass,
  type Section,
  type SongDocument,
} from '../../riff';

export interface PracticeItem {
  /** The same as long as its riffs are: the log is kept under it. */
  readonly id: string;
  readonly kind: 'riff' | 'turn' | 'song';
  /** Of the riff; '' for what is more than one. */
  readonly letter: string;
  /** Frets that the riff is moved up. */
  readonly transpose: number;
  /** Of the riff, or of the section that a turn leads to. */
  readonly name: string;
  /** Where it is played, in bars of the grid. */
  readonly startBar: number;
  readonly bars: number;
  readonly startS: number;
  readonly endS: number;
  /** Tempo of the recording there, beats a minute. */
  readonly bpm: number;
}

interface Played {
  readonly section: Section;
  /** Of riff and height. */
  readonly key: string;
  readonly passes: readonly Pass[];
}

const keyOf = ({ riffId, transpose }: Section): string =>
  transpose === 0 ? `${riffId}` : `${riffId}${transpose > 0 ? '+' : ''}${transpose}`;

/** In the order in which the song brings them, the whole song last. Empty while no section plays a riff. */
export function practiceItems(document: SongDocument): PracticeItem[] {
  const { grid, riffs, sections } = document;
  const played = sections.flatMap((section): Played[] => {
    const riff = riffs.find((r) => r.id === section.riffId && r.strums.length > 0);
    const passes = riff ? passesOf(section, riff, grid) : [];
    return passes.length > 0 ? [{ section, key: keyOf(section), passes }] : [];
  });
  const over = (
    startBar: number,
    bars: number,
    what: Omit<PracticeItem, 'startBar' | 'bars' | 'startS' | 'endS' | 'bpm'>,
  ): PracticeItem[] => {
    const [first, last] = [grid.bars[startBar], grid.bars[startBar + bars - 1]];
    if (!first || !last) return [];
    const [startS, endS] = [timeAtBeat(grid, first.beat), timeAtBeat(grid, last.beat + last.beats)];
    const bpm = tempoAt(grid, (startS + endS) / 2);
    return bpm === null ? [] : [{ ...what, startBar, bars, startS, endS, bpm }];
  };
  const seen = new Set<string>();
  const isNew = (id: string): boolean => !seen.has(id) && seen.add(id).has(id);
  const parts = played.flatMap(({ section, key, passes }, i): PracticeItem[] => {
    const riff = riffs.find((r) => r.id === section.riffId)!;
    const { transpose } = section;
    const whole = passes.find((pass) => pass.bars === riff.bars.length) ?? passes[0];
    const id = `riff:${key}`;
    const own = isNew(id)
      ? over(whole.startBar, whole.bars, {
          ...{ id, kind: 'riff', letter: riff.letter, transpose, name: riff.name },
        })
      : [];
    const next = played.at(i + 1);
    // Songs break where one riff becomes the next: the last bar of the one and the first of the other.
    const turnId = `turn:${key}>${next?.key}`;
    const meets = next?.section.startBar === endBarOf(document, section) && next.key !== key;
    const turn =
      meets && isNew(turnId)
        ? over(next.section.startBar - 1, 2, {
            ...{ id: turnId, kind: 'turn', letter: '', transpose: 0, name: next.section.name },
          })
        : [];
    return [...own, ...turn];
  });
  const [first, last] = [played.at(0), played.at(-1)];
  if (!first || !last || played.length < 2) return parts;
  const { startBar } = first.section;
  const bars = endBarOf(document, last.section) - startBar;
  return [
    ...parts,
    ...over(startBar, bars, { id: 'song', kind: 'song', letter: '', transpose: 0, name: '' }),
  ];
}
