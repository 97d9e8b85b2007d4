/**
 * The key from how long each pitch class sounds, by correlation with the profiles of Krumhansl and Kessler
 * (Krumhansl 1990, "Cognitive foundations of musical pitch", table 2.1; values as given there, from memory).
 */
import { keyOn, type Key } from '../../theory';
import type { HeardStrum, KeyEstimate } from '../types';

const MAJOR = [6.35, 2.23, 3.48, 2.33, 4.38, 4.09, 2.52, 5.19, 2.39, 3.66, 2.29, 2.88];
const MINOR = [6.33, 2.68, 3.52, 5.38, 2.6, 3.53, 2.54, 4.75, 3.98, 2.69, 3.34, 3.17];
/** A power chord says most about its root; the fifth belongs to many keys. */
const ROOT_WEIGHT = 2;

function correlation(a: readonly number[], b: readonly number[]): number {
  const mean = (v: readonly number[]): number => v.reduce((s, x) => s + x, 0) / v.length;
  const [ma, mb] = [mean(a), mean(b)];
  let ab = 0;
  let aa = 0;
  let bb = 0;
  for (let i = 0; i < a.length; i++) {
    ab += (a[i] - ma) * (b[i] - mb);
    aa += (a[i] - ma) ** 2;
    bb += (b[i] - mb) ** 2;
  }
  return aa > 0 && bb > 0 ? ab / Math.sqrt(aa * bb) : 0;
}

/** How long each pitch class sounds. */
function secondsOf(strums: readonly HeardStrum[]): number[] {
  const seconds = new Array<number>(12).fill(0);
  for (const { timeS, endS, midi, rootPc } of strums) {
    if (rootPc === null) continue;
    seconds[rootPc] += ROOT_WEIGHT * (endS - timeS);
    for (const note of midi) seconds[note % 12] += (endS - timeS) / midi.length;
  }
  return seconds;
}

/** All 24 keys, the likeliest first. */
function rankKeys(seconds: readonly number[]): { key: Key; score: number }[] {
  const ranked: { key: Key; score: number }[] = [];
  for (let tonic = 0; tonic < 12; tonic++) {
    const turned = seconds.map((_, i) => seconds[(i + tonic) % 12]);
    ranked.push({ key: keyOn(tonic, 'major'), score: correlation(turned, MAJOR) });
    ranked.push({ key: keyOn(tonic, 'minor'), score: correlation(turned, MINOR) });
  }
  return ranked.sort((a, b) => b.score - a.score);
}

/** Null when no strum has a pitch. */
export function estimateKey(strums: readonly HeardStrum[]): KeyEstimate | null {
  const seconds = secondsOf(strums);
  if (seconds.every((s) => s === 0)) return null;
  const [first, second] = rankKeys(seconds);
  return {
    key: first.key,
    confidence: Math.max(0, Math.min(1, (first.score - second.score) * 5)),
  };
}

/** A section is in a key of its own when its strums fit that key clearly better than the key of the song. */
const OWN_KEY_ADVANTAGE = 0.15;
/** Fewer strums say too little about a key. */
const STRUMS_FOR_A_KEY = 8;

/** The key of each section: that of the song, or its own where it changes; null without a key at all. */
export function estimateSectionKeys(
  strums: readonly HeardStrum[],
  sections: readonly { readonly startS: number; readonly endS: number }[],
): (Key | null)[] {
  const song = estimateKey(strums)?.key ?? null;
  return sections.map(({ startS, endS }) => {
    const inside = strums.filter((s) => s.timeS >= startS && s.timeS < endS && s.rootPc !== null);
    if (!song || inside.length < STRUMS_FOR_A_KEY) return song;
    const ranked = rankKeys(secondsOf(inside));
    const scoreOfSong = ranked.find(({ key }) => key.tonic === song.tonic && key.mode === song.mode)!.score;
    return ranked[0].score - scoreOfSong > OWN_KEY_ADVANTAGE ? ranked[0].key : song;
  });
}
