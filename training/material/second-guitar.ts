/** A guitar that plays something else: a lead, the riff in another height, or its chords note by note. It is not in the truth. */
import type { Chance } from './chance';
import type { Composition } from './composition';
import type { TimedStrum } from './guitar-take';
import type { TimeAt } from './backing';

interface Placed {
  readonly at: number;
  readonly end: number;
  readonly midi: readonly number[];
}

/** Where banks of samples and fretboards end. */
const HIGHEST = 86;

function lead(song: Composition, chance: Chance): Placed[] {
  const pool = Array.from({ length: 30 }, (_, i) => 55 + i).filter((m) => song.scale.includes(m % 12));
  const last = song.bars[song.bars.length - 1];
  const step = chance.pick([0.25, 0.5, 0.5, 1]);
  const played: Placed[] = [];
  let at = chance.whole(0, pool.length - 1);
  for (let q = 0; q < last.atQuarter + last.quarters;) {
    const length = step * chance.pick([1, 1, 1, 2, 4]);
    if (chance.yes(0.85)) {
      at = Math.max(0, Math.min(pool.length - 1, at + chance.whole(-2, 2)));
      const isDoubleStop = chance.yes(0.15) && at + 2 < pool.length;
      played.push({ at: q, end: q + length, midi: isDoubleStop ? [pool[at], pool[at + 2]] : [pool[at]] });
    }
    q += length;
  }
  return played;
}

function arpeggio(song: Composition): Placed[] {
  return song.strums.flatMap(({ atQuarter, endQuarter, midi }) => {
    if (midi.length === 0) return [];
    const steps = Math.max(1, Math.floor((endQuarter - atQuarter) / 0.5));
    return Array.from({ length: steps }, (_, i) => ({
      at: atQuarter + i / 2,
      end: Math.min(endQuarter, atQuarter + (i + 1) / 2),
      midi: [midi[i % midi.length] + 12],
    }));
  });
}

function sameElsewhere(song: Composition, chance: Chance): Placed[] {
  const up = chance.pick([12, 12, 7, 5, 3, 4]);
  const notes = chance.whole(1, 3);
  return song.strums.flatMap(({ atQuarter, endQuarter, midi }) =>
    midi.length === 0
      ? []
      : [{ at: atQuarter, end: endQuarter, midi: midi.slice(0, notes).map((m) => m + up) }],
  );
}

export function composeSecondGuitar(song: Composition, timeAt: TimeAt, chance: Chance): TimedStrum[] {
  const part = chance.weighted([
    ['lead', 4],
    ['arpeggio', 2],
    ['elsewhere', 3],
  ] as const);
  const placed =
    part === 'lead' ? lead(song, chance) : part === 'arpeggio' ? arpeggio(song) : sameElsewhere(song, chance);
  return placed
    .filter(({ midi }) => midi[midi.length - 1] <= HIGHEST)
    .map(({ at, end, midi }) => ({
      timeS: timeAt(at),
      endS: timeAt(end),
      midi,
      palmMute: false,
      dead: false,
      legato: part === 'lead' && chance.yes(0.2),
    }));
}
