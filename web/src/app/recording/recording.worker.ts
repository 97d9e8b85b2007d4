/**
 * Holds the recording and the written tab, and answers what is wanted of them: the part from the needle on first, so that it
 * can be heard at once, then the whole. A newer wish ends the older one. What is computed is in `core/playback`.
 */
import { createPitchChange } from '@wild-needle/core/dsp';
import {
  atOtherPitch,
  createMix,
  createTabInStep,
  holdSound,
  notesAt,
  partsFrom,
  stageAt,
  type HeldSound,
  type Mix,
  type StereoPair,
  type TabInStep,
} from '@wild-needle/core/playback';
import type { SongDocument } from '@wild-needle/core/riff';
import { forEars, isolationOf } from './hearing';
import type { RecordingAnswer, RecordingTask } from './recording-client';
import { waitingSound, type WaitingSound } from './waiting-sound';

/** Heard first: as much as is made in a moment; then pieces of this length between looks at the messages. */
const FIRST_S = 4;
const PIECE_S = 8;

let sound: HeldSound | null = null;
let isHalf = false;
let written: SongDocument | null = null;
let tab: TabInStep | null = null;
let wanted = 0;

const answer = (message: RecordingAnswer, transfer: Transferable[] = []): void => {
  postMessage(message, { transfer });
};

/** Lets messages in that came meanwhile. */
const pause = (): Promise<void> => new Promise((resolve) => setTimeout(resolve));

async function hear(
  held: HeldSound,
  { id, hearing, fromS, semitones }: Extract<RecordingTask, { kind: 'hear' }>,
): Promise<void> {
  const { length, sampleRate } = held;
  if (hearing.source !== 'recording' && written) tab ??= createTabInStep(written, held);
  const isolation = isolationOf(hearing);
  const toEars = (pair: StereoPair): StereoPair => forEars(hearing.ears, pair);
  const mix = createMix(held, { source: hearing.source, isolation, toEars, tab });
  const isReady = hearing.source === 'recording' && !isolation;
  const done = isReady ? null : await made(held, mix, { id, fromS });
  if (!isReady && !done) return;
  if (done && semitones === 0) {
    send(id, done, 0, true);
    return;
  }
  const whole: Mix = done
    ? (from, to) => [
        new Float32Array(done[0].subarray(from, to)),
        new Float32Array(done[1].subarray(from, to)),
      ]
    : mix;
  const change = createPitchChange(2 ** (semitones / 12));
  const pitched = semitones === 0 ? whole : atOtherPitch(whole, change, length);
  const end = semitones === 0 ? length : change.lengthOf(length);
  const channels = silence(end);
  for (let from = 0; from < end; from += PIECE_S * sampleRate) {
    // Nothing to compute: then the whole song at once.
    if (semitones !== 0) await pause();
    if (wanted !== id) return;
    put(channels, pitched(from, Math.min(end, from + PIECE_S * sampleRate)), from);
  }
  send(id, channels, semitones, true);
}

/** What is heard of [fromS, toS), made at once. */
function cut(
  held: HeldSound,
  { hearing, fromS, toS }: Extract<RecordingTask, { kind: 'cut' }>,
): readonly [Float32Array<ArrayBuffer>, Float32Array<ArrayBuffer>] {
  if (hearing.source !== 'recording' && written) tab ??= createTabInStep(written, held);
  const toEars = (pair: StereoPair): StereoPair => forEars(hearing.ears, pair);
  const mix = createMix(held, { source: hearing.source, isolation: isolationOf(hearing), toEars, tab });
  const [from, to] = [fromS, toS].map((s) =>
    Math.max(0, Math.min(held.length, Math.round(s * held.sampleRate))),
  );
  const [left, right] = mix(from, to);
  // Copies: one ear may be given to both.
  return [new Float32Array(left), new Float32Array(right)];
}

type Waiting = readonly [WaitingSound, WaitingSound];

function silence(length: number): Waiting {
  return [waitingSound(length, isHalf), waitingSound(length, isHalf)];
}

function put(channels: Waiting, part: StereoPair, at: number): void {
  part.forEach((samples, c) => channels[c].set(samples, at));
}

function send(id: number, channels: Waiting, semitones: number, isWhole: boolean): void {
  answer(
    { kind: 'heard', id, channels, semitones, isWhole },
    channels.map((c) => c.buffer),
  );
}

/** The whole mix, made from the needle on; the first part is sent as soon as it is there. Null when something else is wanted. */
async function made(
  held: HeldSound,
  mix: Mix,
  { id, fromS }: { readonly id: number; readonly fromS: number },
): Promise<Waiting | null> {
  const { length, sampleRate } = held;
  const parts = partsFrom(Math.round(fromS * sampleRate), length, FIRST_S * sampleRate, PIECE_S * sampleRate);
  const [first, ...others] = parts;
  const begun = mix(first.from, first.to);
  // Until its part is made, the recording sounds as it is.
  const meanwhile = silence(length);
  held.copyInto(meanwhile);
  put(meanwhile, begun, first.from);
  send(id, meanwhile, 0, false);
  // Made when the other is on its way: half an hour is large, and is there once.
  await pause();
  const done = silence(length);
  put(done, begun, first.from);
  let share = (first.to - first.from) / length;
  for (const { from, to } of others) {
    await pause();
    if (wanted !== id) return null;
    put(done, mix(from, to), from);
    share += (to - from) / length;
    answer({ kind: 'progress', id, share });
  }
  return done;
}

addEventListener('message', ({ data }: MessageEvent<RecordingTask>) => {
  if (data.kind === 'load') [sound, isHalf] = [holdSound(data.channels, data.sampleRate), data.isHalf];
  else if (data.kind === 'write') [written, tab] = [data.document, null];
  if (!sound) return;
  switch (data.kind) {
    case 'hear':
      wanted = data.id;
      void hear(sound, data);
      break;
    case 'look':
      answer({ kind: 'stage', shares: stageAt(sound, data.atS) });
      break;
    case 'cut': {
      const channels = cut(sound, data);
      answer({ kind: 'cut', id: data.id, channels }, [channels[0].buffer, channels[1].buffer]);
      break;
    }
    case 'peaks':
      answer({ kind: 'peaks', id: data.id, ...sound.peaks(data.fromS, data.toS, data.columns) });
      break;
    case 'notes': {
      const notes = notesAt(sound, data.spans, data.offsetCents);
      if (notes) answer({ kind: 'notes', id: data.id, notes });
      break;
    }
  }
});
