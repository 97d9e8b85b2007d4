/**
 * Holds the recording and the written tab, and answers what is wanted of them: the part from the needle on first, so that it
 * can be heard at once, then the whole. A newer wish ends the older one. What is computed is in `core/playback`.
 */
import {
  createMix,
  createTabInStep,
  holdSound,
  notesAt,
  partsFrom,
  stageAt,
  type HeldSound,
  type StereoPair,
  type TabInStep,
} from '@wild-needle/core/playback';
import type { SongDocument } from '@wild-needle/core/riff';
import { forEars, isolationOf } from './hearing';
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
  { id, hearing, fromS }: Extract<RecordingTask, { kind: 'hear' }>,
): Promise<void> {
  const { length, sampleRate } = held;
  if (hearing.source !== 'recording' && written) tab ??= createTabInStep(written, held);
  const isolation = isolationOf(hearing);
  const toEars = (pair: StereoPair): StereoPair => forEars(hearing.ears, pair);
  const mix = createMix(held, { source: hearing.source, isolation, toEars, tab });
  const send = (channels: StereoPair, isWhole: boolean): void =>
    answer(
      { kind: 'heard', id, channels, isWhole },
      channels.map((c) => c.buffer),
    );
  const isReady = hearing.source === 'recording' && !isolation;
  const parts = partsFrom(Math.round(fromS * sampleRate), length, FIRST_S * sampleRate, PIECE_S * sampleRate);
  // Until its part is made, the recording sounds as it is. One copy at a time: half an hour of floats is large.
  let done = held.cut(0, length);
  let made = 0;
  for (const [i, { from, to }] of parts.entries()) {
    // Nothing to compute: then the whole song at once.
    if (i > 0 && !isReady) {
      await pause();
      if (wanted !== id) return;
    }
    mix(from, to).forEach((part, c) => done[c].set(part, from));
    made += to - from;
    if (isReady) continue;
    if (i === 0) {
      const first = done.map((channel) => channel.slice(from, to));
      send(done, false);
      done = held.cut(0, length);
      first.forEach((part, c) => done[c].set(part, from));
    } else answer({ kind: 'progress', id, share: made / length });
  }
  send(done, true);
}

addEventListener('message', ({ data }: MessageEvent<RecordingTask>) => {
  if (data.kind === 'load') sound = holdSound(data.channels, data.sampleRate);
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
