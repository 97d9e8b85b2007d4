/** Listens to a recording once and then holds every version of the song against it, off the main thread. */
import {
  createWitness,
  judgeSong,
  paperWitness,
  recallWitness,
  settledIn,
  type Witness,
} from '@wild-needle/core/check';
import { throughEars } from '@wild-needle/core/playback';
import { isolationOf, toEarsOf } from '../../../recording/hearing';
import type { JudgeAnswer, JudgeTask } from './judge-client';

let witness: Witness | null = null;

const answer = (message: JudgeAnswer): void => postMessage(message);

function run(task: JudgeTask): void {
  if (task.kind === 'recall') witness = paperWitness(task.before);
  if (task.kind === 'listen') {
    const { signal, document, hearing, before } = task;
    witness = before
      ? recallWitness(signal, before)
      : createWitness(throughEars(signal, isolationOf(hearing), toEarsOf(hearing)), {
          confirmed: settledIn(document),
          onProgress: (share) => answer({ kind: 'progress', share }),
        });
  }
  if (witness) answer({ kind: 'judged', id: task.id, judgement: judgeSong(witness, task.document) });
}

addEventListener('message', ({ data }: MessageEvent<JudgeTask>) => {
  try {
    run(data);
  } catch (error) {
    answer({ kind: 'failed', message: error instanceof Error ? error.message : String(error) });
  }
});
