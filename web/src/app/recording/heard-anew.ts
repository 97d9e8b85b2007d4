/** A part of a song heard anew: cut out of the sound, and put back into what was heard before. */
import type { AnalysedStrum } from '@wild-needle/core/analysis';
import type { StereoSignal } from '@wild-needle/core/mir';

export interface HeardSpan {
  readonly startS: number;
  readonly endS: number;
}

/** Sound kept around the span: what it is measured against is the passage around it. */
const AROUND_S = 12;
/** Strums this near are the same. */
const SAME_STROKE_S = 0.05;

/** The span with its surroundings, and where it starts. */
export function cutSignal(
  { channels, sampleRate }: StereoSignal,
  { startS, endS }: HeardSpan,
): { readonly signal: StereoSignal; readonly fromS: number } {
  const from = Math.max(0, Math.round((startS - AROUND_S) * sampleRate));
  const to = Math.round((endS + AROUND_S) * sampleRate);
  return {
    signal: { channels: channels.map((c) => c.slice(from, to)), sampleRate },
    fromS: from / sampleRate,
  };
}

function isSame(a: AnalysedStrum, b: AnalysedStrum): boolean {
  return (
    Math.abs(a.timeS - b.timeS) < SAME_STROKE_S &&
    a.dead === b.dead &&
    a.palmMuted === b.palmMuted &&
    a.midi.join() === b.midi.join()
  );
}

/** `anew` in place of what was heard in the span; `changed` counts strums that came, went or sound otherwise. */
export function putBack(
  before: readonly AnalysedStrum[],
  anew: readonly AnalysedStrum[],
  { startS, endS }: HeardSpan,
): { readonly strums: readonly AnalysedStrum[]; readonly changed: number } {
  const isInside = ({ timeS }: AnalysedStrum): boolean => timeS >= startS && timeS < endS;
  const [old, now] = [before.filter(isInside), anew.filter(isInside)];
  const came = now.filter((strum) => !old.some((o) => isSame(o, strum))).length;
  const went = old.filter((strum) => !now.some((n) => isSame(n, strum))).length;
  const strums = [...before.filter((s) => !isInside(s)), ...now].sort((a, b) => a.timeS - b.timeS);
  return { strums, changed: Math.max(came, went) };
}
