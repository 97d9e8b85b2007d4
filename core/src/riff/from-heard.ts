/** A pass as it was heard, written down: a draft of the riff to correct, or of a riff that is empty. */
import { applyHabits, chooseHandPath, findVoicings, type Tuning } from '../guitar';
import { TICKS_PER_QUARTER } from '../units';
import type { HeardStroke } from './compare';
import { PLAIN_STRUM, type Riff, type Strum } from './document';
import { riffTicks } from './grid';

const STEP = TICKS_PER_QUARTER / 4;
const TRIPLET = TICKS_PER_QUARTER / 3;
/** A stroke is put on a triplet only when that fits clearly better. */
const TRIPLET_ADVANTAGE = 0.5;
/** Ways to play each strum that the path chooses from. */
const PATH_WIDTH = 6;

function placeOf(ticks: number): number {
  const [even, third] = [STEP, TRIPLET].map((step) => Math.round(ticks / step) * step);
  return Math.abs(ticks - third) < TRIPLET_ADVANTAGE * Math.abs(ticks - even) ? third : even;
}

/**
 * Strums of the length of the riff for what was heard in one pass, on the nearest sixteenths or triplets, in the fingering that
 * moves the hand least. What the tuning can't play is left blank.
 */
export function strumsFromHeard(
  riff: Riff,
  heard: readonly HeardStroke[],
  tuning: Tuning,
  newId: () => string,
): Strum[] {
  const end = riffTicks(riff);
  const placed = heard
    .map((stroke) => ({ stroke, ticks: Math.max(0, placeOf(stroke.ticks)) }))
    .filter(({ ticks }, i, all) => ticks < end && ticks !== all[i - 1]?.ticks);
  const layers = placed.map(({ stroke }) =>
    stroke.dead ? [] : applyHabits(findVoicings(stroke.midi, tuning), tuning).slice(0, PATH_WIDTH),
  );
  const { path } = chooseHandPath(layers.filter((l) => l.length > 0));
  let next = 0;
  return placed.map(({ stroke, ticks }, k): Strum => ({
    ...PLAIN_STRUM,
    id: newId(),
    startTicks: ticks,
    durationTicks: (placed[k + 1]?.ticks ?? end) - ticks,
    frets: layers[k].length > 0 ? path[next++].frets : [],
    palmMute: stroke.palmMuted,
    dead: stroke.dead,
    trust: 'heard',
  }));
}
