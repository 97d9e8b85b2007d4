/** What the panel of instruments says. */
import type { Engine, Separation } from '@wild-needle/contract';
import type { Part, PartMix } from '@wild-needle/core/parts';

export const PART_WORDS: Readonly<Record<Part, string>> = {
  drums: 'Drums',
  bass: 'Bass',
  voice: 'Voice',
  guitars: 'Guitars and the rest',
};

/** 'about 20 s', 'about 11 min'. */
export function durationWords(seconds: number): string {
  return seconds < 90
    ? `about ${Math.max(1, Math.round(seconds))} s`
    : `about ${Math.round(seconds / 60)} min`;
}

/** In place of its name. */
export const MISSING_WORDS: Readonly<Record<Part, string>> = {
  drums: 'No drums found',
  bass: 'No bass found',
  voice: 'No voice found',
  guitars: 'Nothing else found',
};

/** '−10 dB', or why it is not heard. */
export function levelWords({ levelsDb, alone, silent }: PartMix, part: Part): string {
  if (alone === part) return 'alone';
  if (alone === null && silent.includes(part)) return 'silent';
  const db = levelsDb[part];
  return `${db < 0 ? '−' : db > 0 ? '+' : ''}${Math.abs(db)} dB`;
}

/** '4 of 11 min', '6 of 20 s'; null before that can be told. */
export function progressWords({ ready, pieces, secondsLeft }: Separation): string | null {
  if (secondsLeft === null || ready.length === 0) return null;
  const whole = (secondsLeft * pieces) / Math.max(1, pieces - ready.length);
  const [unit, word] = whole < 90 ? [1, 's'] : [60, 'min'];
  return `${Math.round((whole - secondsLeft) / unit)} of ${Math.max(1, Math.round(whole / unit))} ${word}`;
}

/** 'roughly', 'by the network'. */
export const ENGINE_WORDS: Readonly<Record<Engine, string>> = {
  rough: 'roughly',
  network: 'by the network',
};
