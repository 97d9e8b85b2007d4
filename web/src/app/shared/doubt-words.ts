/** What an analysis doubts, in sentences that say what to do about it. */
import { barTimesS, overallTempo, type BeatGrid } from '@wild-needle/core/riff';
import { clock } from '@wild-needle/core/units';
import type { Doubt } from '@wild-needle/core/analysis';

/** Tempi nearer than this are the same. */
const SAME_TEMPO = 0.04;

/** What the user has settled since is no doubt any more: beats where none were heard, another reading of the tempo. */
export function isOpen(doubt: Doubt, grid: BeatGrid): boolean {
  switch (doubt.kind) {
    case 'no-pulse':
      return grid.bars.length === 0;
    case 'free-time': {
      const inside = barTimesS(grid).some((t) => t > doubt.startS + 1 && t < doubt.endS - 1);
      return !inside;
    }
    case 'tempo': {
      const tempo = overallTempo(grid);
      const [{ tempoBpm, meter }, bar] = [doubt.other, grid.bars.at(0)];
      const isSameMeter = bar === undefined || (meter.beats === bar.beats && meter.unit === bar.unit);
      return tempo !== null && (!isSameMeter || Math.abs(tempoBpm / tempo - 1) > SAME_TEMPO);
    }
    default:
      return true;
  }
}

export function doubtWords(doubt: Doubt): string {
  switch (doubt.kind) {
    case 'no-strums':
      return 'Nothing in this recording sounds like a struck guitar. Is it the right file?';
    case 'no-notes':
      return 'Nothing but strokes without a pitch was heard: a click or drums, perhaps. Is the guitar in this recording?';
    case 'few-strums':
      return doubt.count === 1
        ? 'Only one strum was heard. Is there a guitar in this recording, or should another ear or focus find it?'
        : `Only ${doubt.count} strums were heard. Is there a guitar in this recording, or should another ear or focus find it?`;
    case 'no-chords':
      return 'Nearly every strum that was heard is a single note: a voice, a bass or a lead, perhaps. Are there chords in this recording?';
    case 'faint':
      return 'Hardly a strum was heard surely. Take every chord here as a guess, and try another ear or focus.';
    case 'no-pulse':
      return 'No steady beat was found, so there are no bars yet: on Sections, T taps them.';
    case 'tempo': {
      const { tempoBpm, meter } = doubt.other;
      return `It may as well be ${Math.round(tempoBpm)} bpm in ${meter.beats}/${meter.unit}.`;
    }
    case 'between-notes':
      return `The recording lies between two notes (${Math.round(Math.abs(doubt.cents))} cents): all chords may be a fret higher or lower.`;
    case 'free-time':
      return `From ${clock(doubt.startS)} to ${clock(doubt.endS)} there is no steady beat, so there are no bars.`;
  }
}
