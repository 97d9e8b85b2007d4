/** A file on disk and what is written about it to how far each strum is doubted: what the command line prints. */
import {
  gatherEvidence,
  judge,
  type Evidence,
  type Judgement,
  type WrittenStrum,
} from '@wild-needle/core/check';
import type { OnProgress } from '@wild-needle/core/mir';
import { ANALYSIS_SAMPLE_RATE } from '@wild-needle/core/units';
import { decodeAudio } from './decode';

export interface JudgedFile {
  /** One for each written strum. */
  readonly judgements: readonly Judgement[];
  readonly extra: Evidence['extra'];
}

/** `written` in order of time. Throws an AudioProblem for bad input. */
export async function judgeFile(
  path: string,
  written: readonly WrittenStrum[],
  onProgress: OnProgress,
): Promise<JudgedFile> {
  const signal = await decodeAudio(path, ANALYSIS_SAMPLE_RATE);
  const evidence = gatherEvidence(signal, written, { onProgress });
  return { judgements: judge(evidence, written), extra: evidence.extra };
}
