/** What sounds in the headphones while a take is recorded: nothing, a click, or a recording of the song that it is played to. */
import type { AnalysisJob } from '@wild-needle/contract';
import { playClick } from '../transport/click';

export type Along = { readonly kind: 'nothing' } | { readonly kind: 'click' } | AlongRecording;
export interface AlongRecording {
  readonly kind: 'recording';
  readonly songId: string;
  readonly recordingId: AnalysisJob['recordingId'];
  readonly title: string;
}

export const NOTHING_ALONG: Along = { kind: 'nothing' };

/** Quieter than the guitar, for the sake of the ears. */
const LEVEL = 0.5;
export const CLICK_BEATS = 4;
/** 120 to the minute. */
export const CLICK_BEAT_S = 0.5;
/** Clicks are handed over so far ahead, and so often. */
const AHEAD_S = 2;
const EVERY_MS = 500;

export interface Accompaniment {
  /** From this time of the device's clock on. */
  start(atS: number): void;
  stop(): void;
}

/** `bytesOf` reads a recording. Rejects where it can't be read. */
export async function prepareAlong(
  context: AudioContext,
  along: Along,
  bytesOf: (recordingId: string) => Promise<ArrayBuffer>,
): Promise<Accompaniment | null> {
  if (along.kind === 'nothing') return null;
  const out = new GainNode(context, { gain: LEVEL });
  out.connect(context.destination);
  if (along.kind === 'click') return clicks(context, out);
  const buffer = await context.decodeAudioData(await bytesOf(along.recordingId));
  const source = new AudioBufferSourceNode(context, { buffer });
  source.connect(out);
  return {
    start: (atS) => source.start(atS),
    stop: () => out.disconnect(),
  };
}

function clicks(context: AudioContext, out: GainNode): Accompaniment {
  let timer: ReturnType<typeof setInterval> | undefined;
  return {
    start(atS) {
      let beat = 0;
      const hand = (): void => {
        for (; atS + beat * CLICK_BEAT_S < context.currentTime + AHEAD_S; beat++) {
          playClick(context, out, atS + beat * CLICK_BEAT_S, beat % CLICK_BEATS === 0);
        }
      };
      hand();
      timer = setInterval(hand, EVERY_MS);
    },
    stop() {
      clearInterval(timer);
      out.disconnect();
    },
  };
}
