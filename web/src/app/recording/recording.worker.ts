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
  withParts,
  type HeldSound,
  type Mix,
  type StereoPair,
  type TabInStep,
} from '@wild-needle/core/playback';
import { GUITARS_ALONE } from '@wild-needle/core/parts';
import type { SongDocument } from '@wild-needle/core/riff';
import { createBandPieces, type BandPieces } from './band-pieces';
import { forEars, isolationOf, type Hearing } from './hearing';
import type { RecordingAnswer, RecordingTask } from './recording-client';
import { waitingSound, type WaitingSound } from './waiting-sound';

/** Heard first: as much as is made in a moment; then pieces of this length between looks at the messages. */
const FIRST_S = 4;
const PIECE_S = 8;

let sound: HeldSound | null = null;
let pieces: BandPieces | null = null;
let isHalf = false;
let written: SongDocument | null = null;
let tab: TabInStep | null = null;
let wanted = 0;

const answer = (message: RecordingAnswer, transfer: Transferable[] = []): void => {
  postMessage(message, { transfer });
};

/** Lets messages in that came meanwhile. */
const pause = (): Promise<void> => new Promise((resolve) => setTimeout(resolve));

/** What is heard so, where it is ready to be mixed. */
function mixOf(held: HeldSound, hearing: Hearing): Mix {
  if (hearing.source !== 'recording' && written) tab ??= createTabInStep(written, held);
  const toEars = (pair: StereoPair): StereoPair => forEars(hearing.ears, pair);
  const band = hearing.parts && pieces ? withParts(held, pieces.of, hearing.parts) : held;
  return createMix(band, { source: hearing.source, isolation: isolationOf(hearing), toEars, tab });
}

/** Makes [from, to) ready; ears reach a little further. */
async function prepare(
  held: HeldSound,
  { parts }: Pick<Hearing, 'parts'>,
  from: number,
  to: number,
): Promise<void> {
  if (parts) await pieces?.ensure(from - held.sampleRate, to + held.sampleRate);
}

async function hear(
  held: HeldSound,
  { id, hearing, fromS, semitones }: Extract<RecordingTask, { kind: 'hear' }>,
): Promise<void> {
  const { length, sampleRate } = held;
  const mix = mixOf(held, hearing);
  const isReady = hearing.source === 'recording' && !isolationOf(hearing) && !hearing.parts;
  const done = isReady ? null : await made(held, mix, { id, fromS, hearing });
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
async function cut(
  held: HeldSound,
  { hearing, fromS, toS }: Extract<RecordingTask, { kind: 'cut' }>,
): Promise<readonly [Float32Array<ArrayBuffer>, Float32Array<ArrayBuffer>]> {
  const [from, to] = [fromS, toS].map((s) =>
    Math.max(0, Math.min(held.length, Math.round(s * held.sampleRate))),
  );
  await prepare(held, hearing, from, to);
  const [left, right] = mixOf(held, hearing)(from, to);
  // Copies: one ear may be given to both.
  return [new Float32Array(left), new Float32Array(right)];
}

/** Notes of the recording, or of its guitars alone. */
async function notesOf(
  held: HeldSound,
  { spans, offsetCents, ofGuitars }: Extract<RecordingTask, { kind: 'notes' }>,
): Promise<ReturnType<typeof notesAt>> {
  if (!ofGuitars || !pieces) return notesAt(held, spans, offsetCents);
  for (const { startS, endS } of spans) {
    await prepare(held, { parts: GUITARS_ALONE }, startS * held.sampleRate, endS * held.sampleRate);
  }
  return notesAt(withParts(held, pieces.of, GUITARS_ALONE), spans, offsetCents);
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
  { id, fromS, hearing }: Pick<Extract<RecordingTask, { kind: 'hear' }>, 'id' | 'fromS' | 'hearing'>,
): Promise<Waiting | null> {
  const { length, sampleRate } = held;
  const parts = partsFrom(Math.round(fromS * sampleRate), length, FIRST_S * sampleRate, PIECE_S * sampleRate);
  const [first, ...others] = parts;
  await prepare(held, hearing, first.from, first.to);
  if (wanted !== id) return null;
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
    await prepare(held, hearing, from, to);
    if (wanted !== id) return null;
    put(done, mix(from, to), from);
    share += (to - from) / length;
    answer({ kind: 'progress', id, share });
  }
  return done;
}

addEventListener('message', ({ data }: MessageEvent<RecordingTask>) => {
  if (data.kind === 'load') {
    [sound, isHalf] = [holdSound(data.channels, data.sampleRate), data.isHalf];
    pieces = createBandPieces(data.sampleRate);
  } else if (data.kind === 'apart') pieces?.update(data.addresses);
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
    case 'cut':
      void cut(sound, data).then((channels) => {
        answer({ kind: 'cut', id: data.id, channels }, [channels[0].buffer, channels[1].buffer]);
      });
      break;
    case 'peaks':
      answer({ kind: 'peaks', id: data.id, ...sound.peaks(data.fromS, data.toS, data.columns) });
      break;
    case 'notes':
      void notesOf(sound, data).then((notes) => {
        if (notes) answer({ kind: 'notes', id: data.id, notes });
      });
      break;
  }
});
