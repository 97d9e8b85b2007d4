/**
 * One analysis from the queue: fetch the bytes, measure in a thread, store the result. A heartbeat says that
 * somebody works on it; when it finds that the analysis was cancelled or deleted, the thread is ended.
 */
import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import { randomUUID } from 'node:crypto';
import type { AnalysisJob, AnalysisRequest, HeardSoFar } from '@wild-needle/contract';
import type { Analysis } from '@wild-needle/core/analysis';
import { AudioProblem } from '../audio/audio-problem';
import { analyseInThread } from '../audio/run-in-thread';
import { prepareSpool } from '../audio/spool';
import type { AnalyseHandler } from './queue';

export interface AnalysisLedger {
  /** Takes a queued analysis; null when it was cancelled, deleted or finished meanwhile. */
  claim(id: string): Promise<{ recordingId: string; given: AnalysisRequest } | null>;
  /** False when nobody waits for it any more. */
  beat(id: string, now: Pick<AnalysisJob, 'share' | 'doing' | 'soFar'>): Promise<boolean>;
  finish(id: string, analysis: Analysis): Promise<void>;
  fail(id: string, problem: NonNullable<AnalysisJob['problem']>): Promise<void>;
}

export interface RecordingBytes {
  /** Writes the original bytes to a file. */
  writeTo(recordingId: string, path: string): Promise<void>;
}

/** How often the heartbeat is written; the ledger takes {@link STALE_AFTER_S} without one for a crash. */
export const HEARTBEAT_MS = 1000;
export const STALE_AFTER_S = 8;

const WORDS_FOR_FAILURE = 'The analysis failed here for a reason of its own; it is in the log of the server.';

export function createAnalyseHandler(
  ledger: AnalysisLedger,
  recordings: RecordingBytes,
  spoolDir: string,
  log: (error: unknown) => void,
): AnalyseHandler {
  return async ({ analysisId }, isLastAttempt) => {
    const claimed = await ledger.claim(analysisId);
    if (!claimed) return;
    const abandoned = new AbortController();
    let share = 0;
    let doing = 'Fetching the recording';
    let soFar: HeardSoFar | null = null;
    const heartbeat = setInterval(() => {
      ledger
        .beat(analysisId, { share, doing, soFar })
        .then((wanted) => {
          if (!wanted) abandoned.abort(new Error('cancelled'));
        })
        .catch(log);
    }, HEARTBEAT_MS);
    const path = join(spoolDir, randomUUID());
    try {
      await prepareSpool(spoolDir);
      await recordings.writeTo(claimed.recordingId, path);
      const analysis = await analyseInThread(path, claimed.given, {
        signal: abandoned.signal,
        onProgress: (nowShare, nowDoing) => {
          share = nowShare;
          doing = nowDoing;
        },
        onPart: (part) => (soFar = part),
      });
      await ledger.finish(analysisId, analysis);
    } catch (error) {
      if (abandoned.signal.aborted) return;
      if (error instanceof AudioProblem) {
        await ledger.fail(analysisId, { code: error.code, message: error.message });
        return;
      }
      log(error);
      if (!isLastAttempt) throw error;
      await ledger.fail(analysisId, { code: 'internal', message: WORDS_FOR_FAILURE });
    } finally {
      clearInterval(heartbeat);
      await rm(path, { force: true });
    }
  };
}
