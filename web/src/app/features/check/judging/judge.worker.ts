/** Listens to a recording once and then holds every version of the song against it, off the main thread. */
import {
  createWitness,
  judgeSong,
  ownSide,
  paperWitness,
  recallWitness,
  settledIn,
  type Witness,
} from '@wild-needle/core/check';
import { throughEars } from '@wild-needle/core/playback';
import { isolationOf, toEarsOf } from '../../../recording/hearing';
import type { JudgeAnswer, JudgeTask } from './judge-client';

type ListenTask = Extract<JudgeTask, { kind: 'listen' }>;

let witness: Witness | null = null;

const answer = (message: JudgeAnswer): void => postMessage(message);

/** From what was heard before where that is the same sound; listens to the whole of it otherwise. */
function witnessFor({ signal, document, hearing, before, isAnew, isSideUnknown }: ListenTask): Witness {
  const side = isSideUnknown && before ? ownSide(signal, before, document) : 'both';
  if (before && side === 'both' && !isAnew) return recallWitness(signal, before);
  const own = side === 'both' ? hearing : { ...hearing, ears: side };
  return createWitness(throughEars(signal, isolationOf(own), toEarsOf(own)), {
    confirmed: settledIn(document),
    onProgress: (share) => answer({ kind: 'progress', share }),
  });
}

function run(task: JudgeTask): void {
  if (task.kind === 'recall') witness = paperWitness(task.before);
  if (task.kind === 'listen') witness = witnessFor(task);
  if (witness) answer({ kind: 'judged', id: task.id, judgement: judgeSong(witness, task.document) });
}

addEventListener('message', ({ data }: MessageEvent<JudgeTask>) => {
  try {
    run(data);
  } catch (error) {
    answer({ kind: 'failed', message: error instanceof Error ? error.message : String(error) });
  }
});
