/**
 * Tabs with errors for the judge to find: in one strum of ten something is written wrong at random, evenly by the ways to be wrong.
 * The errors are drawn from the shapes that the hearing knows and from nothing that a benchmark plants.
 */
import type { WrittenStrum } from '@wild-needle/core/check';
import { CHORD_SHAPES } from '@wild-needle/core/mir';

const SHARE_WRONG = 0.1;
/** Strums nearer than this leave no room for one between them, s. */
const LEAST_GAP_S = 0.16;
const MOVES = [-12, -7, -5, -2, -1, 1, 2, 5, 7, 12];

/** What is written wrong: the notes, how it is struck, or that it is struck there at all. */
export type Wrong = 'notes' | 'mute' | 'struck' | null;

export interface SpoiledStrum {
  readonly strum: WrittenStrum;
  readonly wrong: Wrong;
}

function pick<T>(random: () => number, all: readonly T[]): T {
  return all[Math.floor(random() * all.length)];
}

function otherNotes(random: () => number, midi: readonly number[]): readonly number[] {
  const shapes = CHORD_SHAPES.flatMap(({ notes }) => (notes ? [notes] : []));
  const above = random() < 0.5 ? midi.map((n) => n - midi[0]) : pick(random, shapes);
  const by = random() < 0.6 ? pick(random, MOVES) : 0;
  const other = above.map((a) => midi[0] + by + a);
  return other.join() === midi.join() ? otherNotes(random, midi) : other;
}

/** The strums of a true tab, some of them wrong, in order of time. `random` answers from 0 to 1. */
export function spoilTab(random: () => number, truth: readonly WrittenStrum[]): SpoiledStrum[] {
  const spoiled = truth.flatMap((strum, i): SpoiledStrum[] => {
    if (random() >= SHARE_WRONG) return [{ strum, wrong: null }];
    const gapS = (truth[i + 1]?.timeS ?? strum.endS) - strum.timeS;
    const kind = pick(random, ['notes', 'notes', 'mute', 'moved', 'there', 'left out']);
    if (kind === 'left out') return [];
    if (kind === 'mute') {
      const isDead = random() < 0.3;
      if (strum.dead) return [{ strum: { ...strum, dead: false, midi: [40, 47, 52] }, wrong: 'mute' }];
      if (isDead) return [{ strum: { ...strum, dead: true, midi: [], palmMuted: false }, wrong: 'mute' }];
      return [{ strum: { ...strum, palmMuted: !strum.palmMuted }, wrong: 'mute' }];
    }
    if (kind === 'notes' && !strum.dead)
      return [{ strum: { ...strum, midi: otherNotes(random, strum.midi) }, wrong: 'notes' }];
    if (gapS < LEAST_GAP_S) return [{ strum, wrong: null }];
    const later = { ...strum, timeS: strum.timeS + gapS * (0.4 + 0.2 * random()) };
    if (kind === 'moved') return [{ strum: later, wrong: 'struck' }];
    return [
      { strum, wrong: null },
      { strum: later, wrong: 'struck' },
    ];
  });
  return spoiled.sort((a, b) => a.strum.timeS - b.strum.timeS);
}
