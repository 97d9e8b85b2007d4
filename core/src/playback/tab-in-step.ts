/**
 * The written tab at the loudness of its recording (EBU R 128, by way of ITU-R BS.1770), so that going back and forth between
 * them does not jump.
 */
import { integratedLoudness } from '../dsp';
import type { SongDocument } from '../riff';
import { createTabPlayer } from '../synth';
import { dbToRatio } from '../units';
import type { HeldSound } from './held-sound';

/** Samples [from, to) of the recording's time, one channel. */
export type TabInStep = (from: number, to: number) => Float32Array;

/** The tab sounds the same each time. */
const SEED = 5;
/** Loudness is compared over this much from the first stroke on. */
const COMPARED_S = 10;

/** Silent where nothing is written within the recording. */
export function createTabInStep(document: SongDocument, sound: HeldSound): TabInStep {
  const { sampleRate, length } = sound;
  const player = createTabPlayer(document, { sampleRate, seed: SEED });
  const from = Math.round((player.startS ?? 0) * sampleRate);
  const to = Math.min(length, from + COMPARED_S * sampleRate);
  if (player.startS === null || to <= from) return (start, end) => new Float32Array(end - start);
  const played = player.render(from, to);
  const wanted = integratedLoudness(sound.cut(from, to), sampleRate);
  const own = integratedLoudness([played, played], sampleRate);
  // What is too short or too quiet to be measured stays as it is.
  const gain = wanted === null || own === null ? 1 : dbToRatio(wanted - own);
  return (start, end) => player.render(start, end).map((v) => v * gain);
}
