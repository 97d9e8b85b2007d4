/**
 * A short hand for writing demo riffs. One string per bar, strums separated by blanks:
 * `FRETS:LENGTH` with frets from the lowest string up joined by dots (`x` = not played) and the length in
 * sixteenths; behind it `m` is a palm mute, `s` slid into and `h` hammered from the strum before. `D:2` is a dead stroke,
 * `-:4` nothing.
 */
import { NO_MARKS, PLAIN_RIFF, PLAIN_STRUM, type Riff, type Strum } from '@wild-needle/core/riff';

const SIXTEENTH = 240;
const TOKEN = /^(-|D|[\dx.]+):(\d+)([msh]?)$/;

function strumOf(id: string, frets: string, startTicks: number, durationTicks: number, mark: string): Strum {
  const dead = frets === 'D';
  return {
    ...PLAIN_STRUM,
    id,
    startTicks,
    durationTicks,
    frets: dead
      ? []
      : frets.split('.').flatMap((f, i) => (f === 'x' ? [] : [{ string: 6 - i, fret: Number(f) }])),
    palmMute: mark === 'm',
    dead,
    marks: { ...NO_MARKS, join: mark === 's' ? 'slide' : mark === 'h' ? 'hammer' : null },
    trust: 'checked',
  };
}

/** Throws when a bar is not 16 sixteenths long or a word can't be read. */
export function riffOf(letter: string, name: string, bars: readonly string[]): Riff {
  const strums: Strum[] = [];
  bars.forEach((bar, b) => {
    let at = 0;
    for (const word of bar.split(/\s+/)) {
      const match = TOKEN.exec(word);
      if (!match) throw new Error(`can't read ${word} in ${name}`);
      const length = Number(match[2]);
      if (match[1] !== '-') {
        const start = (b * 16 + at) * SIXTEENTH;
        strums.push(
          strumOf(`riff-${letter}-${strums.length + 1}`, match[1], start, length * SIXTEENTH, match[3]),
        );
      }
      at += length;
    }
    if (at !== 16) throw new Error(`bar ${b + 1} of ${name} is ${at} sixteenths long, not 16`);
  });
  return {
    ...PLAIN_RIFF,
    id: `riff-${letter}`,
    letter,
    name,
    bars: bars.map(() => ({ beats: 4, unit: 4 })),
    strums,
  };
}
