/**
 * Holds the recording and the written tab, and answers what is wanted of them: the part from the needle on first, so that it
 * can be heard at once, then the whole. A newer wish ends the older one.
 */
import { integratedLoudness, isolate, panorama } from '@wild-needle/core/dsp';
import type { SongDocument } from '@wild-needle/core/riff';
import { createTabPlayer, type TabPlayer } from '@wild-needle/core/synth';
import { forEars, isolationOf, type Hearing } from '../audio/ears';
import type { IsolationAnswer, IsolationTask } from './isolation-client';

/** Heard first: as much as is processed in a moment; then pieces of this length between looks at the messages. */
const FIRST_S = 4;
const PIECE_S = 8;
const FULL_SCALE = 32767;
/** The tab sounds the same each time. */
const SEED = 5;
/** Loudness is compared over this much from the first stroke on. */
const COMPARED_S = 10;
/** Samples around a moment that the stage is drawn from. */
const LOOK = 4096;

type Pair = readonly [Float32Array, Float32Array];

let source: { readonly channels: readonly [Int16Array, Int16Array]; readonly sampleRate: number } | null =
  null;
let written: SongDocument | null = null;
let tab: { readonly player: TabPlayer; readonly gain: number } | null = null;
let wanted = 0;

const answer = (message: IsolationAnswer, transfer: Transferable[] = []): void => {
  postMessage(message, { transfer });
};

function toFloat(samples: Int16Array): Float32Array {
  const out = new Float32Array(samples.length);
  for (let n = 0; n < out.length; n++) out[n] = samples[n] / FULL_SCALE;
  return out;
}

/** Lets messages in that came meanwhile. */
function pause(): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve));
}

/** The tab, brought to the loudness of the recording (EBU R 128), so that going back and forth does not jump. */
function openTab(recording: Pair, sampleRate: number): typeof tab {
  if (!written) return null;
  const player = createTabPlayer(written, { sampleRate, seed: SEED });
  const from = Math.round((player.startS ?? 0) * sampleRate);
  const to = Math.min(recording[0].length, from + COMPARED_S * sampleRate);
  if (to <= from) return { player, gain: 0 };
  const played = player.render(from, to);
  const wantedLufs = integratedLoudness(
    recording.map((c) => c.subarray(from, to)),
    sampleRate,
  );
  const ownLufs = integratedLoudness([played, played], sampleRate);
  const gain = wantedLufs === null || ownLufs === null ? 1 : 10 ** ((wantedLufs - ownLufs) / 20);
  return { player, gain };
}

/** What sounds in [from, to) of the song. */
function createMaker(
  recording: Pair,
  sampleRate: number,
  hearing: Hearing,
): (from: number, to: number) => Pair {
  const isolation = isolationOf(hearing);
  const fromRecording = (from: number, to: number): Pair =>
    forEars(
      hearing.ears,
      isolation
        ? isolate(recording, sampleRate, isolation, from, to)
        : [recording[0].slice(from, to), recording[1].slice(from, to)],
    );
  if (hearing.source === 'recording') return fromRecording;
  tab ??= openTab(recording, sampleRate);
  const fromTab = (from: number, to: number): Float32Array =>
    tab ? tab.player.render(from, to).map((v) => v * (tab?.gain ?? 0)) : new Float32Array(to - from);
  return (from, to) => {
    const played = fromTab(from, to);
    if (hearing.source === 'tab') return [played, played];
    const [left, right] = fromRecording(from, to);
    return [left.map((v, n) => (v + right[n]) / 2), played];
  };
}

async function hear({ id, hearing, fromS }: Extract<IsolationTask, { kind: 'hear' }>): Promise<void> {
  if (!source) return;
  const { sampleRate } = source;
  const plain: Pair = [toFloat(source.channels[0]), toFloat(source.channels[1])];
  const length = plain[0].length;
  const done: Pair = [plain[0].slice(), plain[1].slice()];
  const make = createMaker(plain, sampleRate, hearing);
  const process = (from: number, to: number): void => {
    make(from, to).forEach((part, c) => done[c].set(part, from));
  };
  const send = (channels: Pair, isWhole: boolean): void =>
    answer(
      { kind: 'heard', id, channels, isWhole },
      channels.map((c) => c.buffer),
    );
  if (hearing.source === 'recording' && !isolationOf(hearing)) {
    // Nothing to compute: the whole song at once.
    process(0, length);
    send(done, true);
    return;
  }
  const first = Math.min(length, Math.max(0, Math.round(fromS * sampleRate)));
  const firstEnd = Math.min(length, first + FIRST_S * sampleRate);
  process(first, firstEnd);
  send([done[0].slice(), done[1].slice()], false);
  const piece = PIECE_S * sampleRate;
  let processed = firstEnd - first;
  // Onwards from the needle, then from the start up to it.
  for (const [from, to] of [
    [firstEnd, length],
    [0, first],
  ]) {
    for (let at = from; at < to; at += piece) {
      await pause();
      if (wanted !== id) return;
      process(at, Math.min(to, at + piece));
      processed += Math.min(to, at + piece) - at;
      answer({ kind: 'progress', id, share: processed / length });
    }
  }
  send(done, true);
}

function look(atS: number): void {
  if (!source) return;
  const centre = Math.round(atS * source.sampleRate);
  const from = Math.max(0, centre - LOOK);
  const around = source.channels.map((c) => toFloat(c.subarray(from, centre + LOOK)));
  answer({ kind: 'stage', shares: panorama(around, source.sampleRate, centre - from) });
}

addEventListener('message', ({ data }: MessageEvent<IsolationTask>) => {
  switch (data.kind) {
    case 'load':
      source = { channels: data.channels, sampleRate: data.sampleRate };
      break;
    case 'write':
      written = data.document;
      tab = null;
      break;
    case 'hear':
      wanted = data.id;
      void hear(data);
      break;
    case 'look':
      look(data.atS);
      break;
  }
});
