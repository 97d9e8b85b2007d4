/** What sounds in a part of the song: the recording, isolated where that is wanted, the written tab, or one in each ear. */
import { isolate, ISOLATION_REACH, type Isolation } from '../dsp';
import type { HeldSound, StereoPair } from './held-sound';
import type { TabInStep } from './tab-in-step';

export interface MixOptions {
  readonly source: 'recording' | 'tab' | 'each';
  /** Null for the recording as it is. */
  readonly isolation: Isolation | null;
  /** Which channels of the recording reach which ear. */
  readonly toEars: (pair: StereoPair) => StereoPair;
  /** The written tab; null while there is none, then it is silent. */
  readonly tab: TabInStep | null;
}

/** Samples [from, to) of both ears. Parts come out the same whichever way the song is cut. */
export type Mix = (from: number, to: number) => StereoPair;

/** [from, to) of the recording isolated; only what it depends on is held as floats. */
function isolated(sound: HeldSound, isolation: Isolation, from: number, to: number): StereoPair {
  const start = Math.max(0, (Math.floor(from / ISOLATION_REACH) - 1) * ISOLATION_REACH);
  const around = sound.cut(start, Math.min(sound.length, to + ISOLATION_REACH));
  return isolate(around, sound.sampleRate, isolation, from - start, to - start);
}

export function createMix(sound: HeldSound, { source, isolation, toEars, tab }: MixOptions): Mix {
  const ofRecording: Mix = (from, to) =>
    toEars(isolation ? isolated(sound, isolation, from, to) : sound.cut(from, to));
  if (source === 'recording') return ofRecording;
  const ofTab = (from: number, to: number): Float32Array => tab?.(from, to) ?? new Float32Array(to - from);
  if (source === 'tab') {
    return (from, to) => {
      const played = ofTab(from, to);
      return [played, played];
    };
  }
  return (from, to) => {
    const [left, right] = ofRecording(from, to);
    return [left.map((v, n) => (v + right[n]) / 2), ofTab(from, to)];
  };
}
