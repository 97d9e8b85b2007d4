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
import { toFloat, toInt16 } from '@wild-needle/core/units';
import { forEars, isolationOf } from './hearing';
import { PLAYED_LOUDEST } from './played';
import type { RecordingAnswer, RecordingTask } from './recording-client';

/** Heard first: as much as is made in a moment; then pieces of this length between looks at the messages. */
const FIRST_S = 4;
const PIECE_S = 8;

let sound: HeldSound | null = null;
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
  const isHeld = hearing.source === 'recording' && !isolation;
  const played = isHeld ? copyOf(forEars(hearing.ears, held.channels)) : await made(held, mix, { id, fromS });
  if (!played) return;
  if (semitones === 0) {
    send(id, played, 0, true);
    return;
  }
  const whole: Mix = (from, to) => [
    floats(played[0].subarray(from, to)),
    floats(played[1].subarray(from, to)),
  ];
  const change = createPitchChange(2 ** (semitones / 12));
  const pitched = atOtherPitch(whole, change, length);
  const end = change.lengthOf(length);
  const channels = silence(end);
  for (let from = 0; from < end; from += PIECE_S * sampleRate) {
    await pause();
    if (wanted !== id) return;
    put(channels, pitched(from, Math.min(end, from + PIECE_S * sampleRate)), from);
  }
  send(id, channels, semitones, true);
}

/** What is played, at the scale of {@link PLAYED_LOUDEST}. */
type Played = readonly [Int16Array<ArrayBuffer>, Int16Array<ArrayBuffer>];

function silence(length: number): Played {
  return [new Int16Array(length), new Int16Array(length)];
}

function copyOf([left, right]: readonly [Int16Array, Int16Array]): Played {
  return [new Int16Array(left), new Int16Array(right)];
}

function put(played: Played, part: StereoPair, at: number): void {
  part.forEach((channel, c) => played[c].set(toInt16(channel, PLAYED_LOUDEST), at));
}

function floats(played: Int16Array): Float32Array {
  return toFloat(played, PLAYED_LOUDEST);
}

function send(id: number, channels: Played, semitones: number, isWhole: boolean): void {
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
): Promise<Played | null> {
  const { length, sampleRate } = held;
  const parts = partsFrom(Math.round(fromS * sampleRate), length, FIRST_S * sampleRate, PIECE_S * sampleRate);
  const done = silence(length);
  let share = 0;
  for (const [i, { from, to }] of parts.entries()) {
    if (i > 0) {
      await pause();
      if (wanted !== id) return null;
    }
    put(done, mix(from, to), from);
    share += (to - from) / length;
    if (i > 0) answer({ kind: 'progress', id, share });
    else {
      // Until its part is made, the recording sounds as it is.
      const meanwhile = copyOf(held.channels);
      done.forEach((channel, c) => meanwhile[c].set(channel.subarray(from, to), from));
      send(id, meanwhile, 0, false);
    }
  }
  return done;
}

addEventListener('message', ({ data }: MessageEvent<RecordingTask>) => {
  if (data.kind === 'load') sound = holdSound(data.channels, data.sampleRate, PLAYED_LOUDEST);
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
