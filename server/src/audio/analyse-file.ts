/** A file on disk to its analysis: what the command line prints and what the worker thread stores. */
import { analyse, type Analysis, type AnalyseOptions } from '@wild-needle/core/analysis';
import { ANALYSIS_SAMPLE_RATE } from '@wild-needle/core/units';
import { decodeAudio } from './decode';

/** Throws an AudioProblem for bad input. */
export async function analyseFile(path: string, options: AnalyseOptions): Promise<Analysis> {
  options.onProgress?.(0.01, 'Reading the recording');
  return analyse(await decodeAudio(path, ANALYSIS_SAMPLE_RATE), options);
}
