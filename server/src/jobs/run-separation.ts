/**
 * One band taken apart, from the queue: piece by piece from where it is listened to, each stored as soon as it is there, so that it
 * goes on where it was after a crash or a stop.
 */
import { randomUUID } from 'node:crypto';
import { open, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { pieceOrder, powersOf, SEPARATION_RATE, type PartPowers } from '@wild-needle/core/parts';
import { toInt16 } from '@wild-needle/core/units';
import { readAudio } from '../audio/decode';
import { encodePiece } from '../audio/piece-file';
import { startSeparator, type Separator } from '../audio/separator';
import { prepareSpool, PRIVATE_FILE } from '../audio/spool';
import type { SeparateHandler, SeparationTask } from './queue';
import { HEARTBEAT_MS, type RecordingBytes } from './run-analysis';

export interface StoredPiece {
  readonly piece: number;
  readonly bytes: Buffer;
  readonly powers: PartPowers;
}

export interface SeparationLedger {
  /** Takes a queued one; false when it was stopped or removed meanwhile. */
  claim(task: SeparationTask): Promise<boolean>;
  /** Where it is listened to, and what is there already; null when nobody waits for it any more. */
  wanted(task: SeparationTask): Promise<{ fromS: number; pieces: number; ready: readonly number[] } | null>;
  beat(task: SeparationTask): Promise<boolean>;
  addPiece(task: SeparationTask, piece: StoredPiece, seconds: number): Promise<void>;
  finish(task: SeparationTask): Promise<void>;
  fail(task: SeparationTask, problem: string): Promise<void>;
}

export interface SeparationPlaces {
  readonly spoolDir: string;
  readonly networkDir: string;
}

const WORDS_FOR_FAILURE = 'Could not take the band apart; Focus still works.';

export function createSeparateHandler(
  ledger: SeparationLedger,
  recordings: RecordingBytes,
  { spoolDir, networkDir }: SeparationPlaces,
  log: (error: unknown) => void,
): SeparateHandler {
  async function decodeRaw(recordingId: string, rawPath: string): Promise<void> {
    const path = join(spoolDir, randomUUID());
    const raw = await open(rawPath, 'w', PRIVATE_FILE);
    try {
      await recordings.writeTo(recordingId, path);
      let written = Promise.resolve();
      await readAudio(path, SEPARATION_RATE, (interleaved, channels) => {
        const pairs = channels === 2 ? interleaved : doubled(interleaved);
        const bytes = new Uint8Array(toInt16(pairs).buffer);
        written = written.then(async () => {
          await raw.write(bytes);
        });
      });
      await written;
    } finally {
      await raw.close();
      await rm(path, { force: true });
    }
  }

  /** Until nothing is missing, or nobody waits. A piece is stored while the next one is made. */
  async function work(task: SeparationTask, separator: Separator): Promise<void> {
    let storing = Promise.resolve();
    let inHand = -1;
    const store = async (piece: number, samples: Int16Array, seconds: number): Promise<void> => {
      const bytes = await encodePiece(samples, spoolDir);
      await ledger.addPiece(task, { piece, bytes, powers: powersOf(samples) }, seconds);
    };
    for (;;) {
      const startMs = performance.now();
      const wanted = await ledger.wanted(task);
      if (!wanted) return;
      const there = new Set([...wanted.ready, inHand]);
      const piece = pieceOrder(wanted.pieces, wanted.fromS).find((p) => !there.has(p));
      if (piece === undefined) {
        await storing;
        return ledger.finish(task);
      }
      const samples = await separator.piece(piece);
      await storing;
      inHand = piece;
      storing = store(piece, samples, (performance.now() - startMs) / 1000);
      // Waited for with the next piece; it must not end the process before.
      storing.catch(() => undefined);
    }
  }

  return async (task, isLastAttempt) => {
    if (!(await ledger.claim(task))) return;
    const abandoned = new AbortController();
    const heartbeat = setInterval(() => {
      ledger
        .beat(task)
        .then((isWanted) => {
          if (!isWanted) abandoned.abort(new Error('stopped'));
        })
        .catch(log);
    }, HEARTBEAT_MS);
    const rawPath = join(spoolDir, randomUUID());
    let separator: Separator | null = null;
    try {
      await prepareSpool(spoolDir);
      // It comes up while the recording is read.
      separator = startSeparator({ engine: task.engine, rawPath, networkDir }, abandoned.signal);
      await decodeRaw(task.recordingId, rawPath);
      await work(task, separator);
    } catch (error) {
      if (abandoned.signal.aborted) return;
      log(error);
      if (!isLastAttempt) throw error;
      await ledger.fail(task, WORDS_FOR_FAILURE);
    } finally {
      clearInterval(heartbeat);
      separator?.end();
      await rm(rawPath, { force: true });
    }
  };
}

/** One channel for both ears. */
function doubled(samples: Float32Array): Float32Array {
  return Float32Array.from({ length: 2 * samples.length }, (_, n) => samples[n >> 1]);
}
