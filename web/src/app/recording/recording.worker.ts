/**
 * Holds the recording and the written tab, and answers what is wanted of them: the part from the needle on first, so that it
 * can be heard at once, then the whole. A newer wish ends the older one.
 */
import {
  integratedLoudness,
  isolate,
  ISOLATION_REACH,
  panorama,
  resample,
  type Isolation,
} from '@wild-needle/core/dsp';
import { ANALYSIS_SAMPLE_RATE, hearNotes, splitStereo, type NoteSpan } from '@wild-needle/core/mir';
import type { SongDocument } from '@wild-needle/core/riff';
import { createTabPlayer, type TabPlayer } from '@wild-needle/core/synth';
import { forEars, isolationOf, type Hearing } from './hearing';
import type { IsolationAnswer, IsolationTask } from './recording-client';

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

let source: {
  readonly channels: readonly [Int16Array, Int16Array];
  readonly sampleRate: number;
  /** Largest sum of both channels. */
  readonly loudest: number;
} | null = null;
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

/** The stretch [from, to) of the recording. */
function cut(from: number, to: number): Pair {
  const [left, right] = source?.channels ?? [new Int16Array(), new Int16Array()];
  return [toFloat(left.subarray(from, to)), toFloat(right.subarray(from, to))];
}

/** The tab, brought to the loudness of the recording (EBU R 128), so that going back and forth does not jump. */
function openTab(length: number, sampleRate: number): typeof tab {
  if (!written) return null;
  const player = createTabPlayer(written, { sampleRate, seed: SEED });
  const from = Math.round((player.startS ?? 0) * sampleRate);
  const to = Math.min(length, from + COMPARED_S * sampleRate);
  if (to <= from) return { player, gain: 0 };
  const played = player.render(from, to);
  const wantedLufs = integratedLoudness(cut(from, to), sampleRate);
  const ownLufs = integratedLoudness([played, played], sampleRate);
  const gain = wantedLufs === null || ownLufs === null ? 1 : 10 ** ((wantedLufs - ownLufs) / 20);
  return { player, gain };
}

/** [from, to) of the recording isolated; only what it depends on is held as floats. */
function isolated(isolation: Isolation, sampleRate: number, length: number, from: number, to: number): Pair {
  const start = Math.max(0, (Math.floor(from / ISOLATION_REACH) - 1) * ISOLATION_REACH);
  const around = cut(start, Math.min(length, to + ISOLATION_REACH));
  return isolate(around, sampleRate, isolation, from - start, to - start);
}

/** What sounds in [from, to) of the song. */
function createMaker(
  length: number,
  sampleRate: number,
  hearing: Hearing,
): (from: number, to: number) => Pair {
  const isolation = isolationOf(hearing);
  const fromRecording = (from: number, to: number): Pair =>
    forEars(hearing.ears, isolation ? isolated(isolation, sampleRate, length, from, to) : cut(from, to));
  if (hearing.source === 'recording') return fromRecording;
  tab ??= openTab(length, sampleRate);
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
  const length = source.channels[0].length;
  const make = createMaker(length, sampleRate, hearing);
  // Until its part is made, the recording sounds as it is. One copy at a time: half an hour of floats is large.
  let done = cut(0, length);
  const process = (from: number, to: number): void => {
    make(from, to).forEach((part, c) => done[c].set(part, from));
  };
  const send = (channels: Pair, isWhole: boolean): void =>
    answer(
      { kind: 'heard', id, channels, isWhole },
      channels.map((c) => c.buffer),
    );
  if (hearing.source === 'recording' && !isolationOf(hearing)) {
    // Nothing to compute, so the whole song at once; in pieces, since each is copied.
    for (let at = 0; at < length; at += PIECE_S * sampleRate)
      process(at, Math.min(length, at + PIECE_S * sampleRate));
    send(done, true);
    return;
  }
  const first = Math.min(length, Math.max(0, Math.round(fromS * sampleRate)));
  const firstEnd = Math.min(length, first + FIRST_S * sampleRate);
  process(first, firstEnd);
  const heard = done.map((channel) => channel.slice(first, firstEnd));
  send(done, false);
  done = cut(0, length);
  heard.forEach((part, c) => done[c].set(part, first));
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

/** Sound before and after a strum that the low-pass settles in. */
const NOTE_MARGIN_S = 0.02;
/** More of a strum than this is not read, see `SPECTRUM_SECONDS` of core. */
const NOTE_MOST_S = 0.45;

function notesAt(spans: readonly NoteSpan[], offsetCents: number): ReturnType<typeof hearNotes> {
  const parts = spans.map(({ startS, endS }) => {
    const rate = source?.sampleRate ?? ANALYSIS_SAMPLE_RATE;
    const endAt = Math.min(endS, startS + NOTE_MOST_S);
    const from = Math.max(0, Math.round((startS - NOTE_MARGIN_S) * rate));
    const channels = (source?.channels ?? []).map((c) =>
      resample(
        toFloat(c.subarray(from, Math.round((endAt + NOTE_MARGIN_S) * rate))),
        rate,
        ANALYSIS_SAMPLE_RATE,
      ),
    );
    const span = { startS: startS - from / rate, endS: endAt - from / rate };
    return hearNotes(
      splitStereo({ channels, sampleRate: ANALYSIS_SAMPLE_RATE }),
      ANALYSIS_SAMPLE_RATE,
      [span],
      offsetCents,
    );
  });
  const mean = (pick: (part: (typeof parts)[number]) => Float32Array): Float32Array =>
    pick(parts[0]).map((_, i) => parts.reduce((sum, part) => sum + pick(part)[i], 0) / parts.length);
  return { probability: mean((p) => p.probability), level: mean((p) => p.level) };
}

/** Lowest and highest sample of the mean of both channels in each of `columns` equal parts, 1 = the loudest of the song. */
function peaks(fromS: number, toS: number, columns: number): { lows: Float32Array; highs: Float32Array } {
  const [lows, highs] = [new Float32Array(columns), new Float32Array(columns)];
  if (!source) return { lows, highs };
  const { sampleRate, channels, loudest } = source;
  for (let c = 0; c < columns; c++) {
    const at = (part: number): number => Math.round((fromS + ((toS - fromS) * part) / columns) * sampleRate);
    const from = Math.max(0, at(c));
    const to = Math.min(channels[0].length, Math.max(from + 1, at(c + 1)));
    let [low, high] = [Infinity, -Infinity];
    for (let n = from; n < to; n++) {
      const value = channels[0][n] + channels[1][n];
      if (value < low) low = value;
      if (value > high) high = value;
    }
    if (low <= high) [lows[c], highs[c]] = [low / loudest, high / loudest];
  }
  return { lows, highs };
}

function loudestOf([left, right]: readonly [Int16Array, Int16Array]): number {
  let most = 1;
  for (let n = 0; n < left.length; n++) most = Math.max(most, Math.abs(left[n] + right[n]));
  return most;
}

addEventListener('message', ({ data }: MessageEvent<IsolationTask>) => {
  switch (data.kind) {
    case 'load':
      source = { channels: data.channels, sampleRate: data.sampleRate, loudest: loudestOf(data.channels) };
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
    case 'peaks':
      answer({ kind: 'peaks', id: data.id, ...peaks(data.fromS, data.toS, data.columns) });
      break;
    case 'notes':
      if (source && data.spans.length > 0) {
        answer({ kind: 'notes', id: data.id, notes: notesAt(data.spans, data.offsetCents) });
      }
      break;
  }
});
