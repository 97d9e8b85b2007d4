/** Numbers as the screens say them. */
import type { HeardSoFar } from '@wild-needle/contract';

/** -38 → '−38 cents' */
export function signedCents(cents: number): string {
  const sign = cents < 0 ? '−' : '+';
  return `${sign}${Math.abs(cents)} ${Math.abs(cents) === 1 ? 'cent' : 'cents'}`;
}

export function counted(count: number, one: string): string {
  return `${count} ${one}${count === 1 ? '' : 's'}`;
}

/** What is known of a recording that is still being listened to, as '−23 cents, 140 bpm in 4/4, 262 strums'. */
export function soFarWords(soFar: HeardSoFar | null): string {
  if (!soFar) return '';
  const { referenceOffsetCents: cents, tempoBpm, meter, strumsS } = soFar;
  const words = [
    cents === null ? null : Math.round(cents) === 0 ? 'at concert pitch' : signedCents(Math.round(cents)),
    tempoBpm === null || !meter ? null : `${Math.round(tempoBpm)} bpm in ${meter.beats}/${meter.unit}`,
    strumsS.length === 0 ? null : counted(strumsS.length, 'strum'),
  ];
  return words.filter((w) => w !== null).join(', ');
}

/** 'Today, 16:40', 'Yesterday', or the date. */
export function dayOf(time: Date, now: Date): string {
  const startOfDay = (d: Date): number => new Date(d.getFullYear(), d.getMonth(), d.getDate()).getTime();
  const days = Math.round((startOfDay(now) - startOfDay(time)) / 86_400_000);
  if (days === 0) {
    return `Today, ${String(time.getHours()).padStart(2, '0')}:${String(time.getMinutes()).padStart(2, '0')}`;
  }
  if (days === 1) return 'Yesterday';
  return time.toLocaleDateString('en-GB', {
    day: 'numeric',
    month: 'long',
    ...(time.getFullYear() === now.getFullYear() ? {} : { year: 'numeric' }),
  });
}

/** How far a shape is moved: '+2', '−3', '' for not at all. */
export function movedBy(semitones: number): string {
  if (semitones === 0) return '';
  return `${semitones > 0 ? '+' : '−'}${Math.abs(semitones)}`;
}
