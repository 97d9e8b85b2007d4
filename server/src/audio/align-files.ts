/** Two files on disk to where the moments of the first are in the second. */
import type { RecordingAlignment } from '@wild-needle/contract';
import { align, type MonoSignal } from '@wild-needle/core/alignment';
import { ANALYSIS_SAMPLE_RATE } from '@wild-needle/core/units';
import { decodeAudio } from './decode';

async function monoOf(path: string): Promise<MonoSignal> {
  const { channels, sampleRate } = await decodeAudio(path, ANALYSIS_SAMPLE_RATE);
  const [left, right] = channels;
  const samples = right === undefined ? left : left.map((value, n) => (value + right[n]) / 2);
  return { samples, sampleRate };
}

/** Throws an AudioProblem for bad input. */
export async function alignFiles(reference: string, other: string): Promise<RecordingAlignment> {
  const result = align(await monoOf(reference), await monoOf(other));
  if ('unrelated' in result) return { belongs: false, likeness: result.likeness };
  const runs = result.runs.map((run) => run.map(([a, b]): [number, number] => [round(a), round(b)]));
  return { ...result, belongs: true, runs };
}

/** To a tenth of a millisecond: more is not known. */
const round = (seconds: number): number => Math.round(10_000 * seconds) / 10_000;
