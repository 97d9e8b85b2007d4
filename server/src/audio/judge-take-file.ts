/** A take on disk and the tab that it was played from to what the command line prints. */
import { gatherEvidence, type WrittenStrum } from '@wild-needle/core/check';
import type { OnProgress } from '@wild-needle/core/mir';
import {
  judgeTake,
  placeTake,
  type JudgedTake,
  type PlacedTake,
  type Take,
} from '@wild-needle/core/practice';
import { ANALYSIS_SAMPLE_RATE } from '@wild-needle/core/units';
import { decodeAudio } from './decode';

/** `written` in order of time. Throws an AudioProblem for bad input. */
export async function judgeTakeFile(
  path: string,
  written: readonly WrittenStrum[],
  playedTo: Pick<Take, 'beatsS' | 'delayS'>,
  onProgress: OnProgress,
): Promise<JudgedTake> {
  const signal = await decodeAudio(path, ANALYSIS_SAMPLE_RATE);
  const take = { ...playedTo, samples: signal.channels[0], sampleRate: signal.sampleRate };
  // Placed anew where the take turns out to be tuned between two notes: the last placing is the one that was asked about.
  let placed: PlacedTake = placeTake(written, take, []);
  const evidence = gatherEvidence(
    signal,
    (strokes) => {
      placed = placeTake(written, take, strokes);
      return placed.played;
    },
    { onProgress },
  );
  return judgeTake(written, placed, evidence);
}
