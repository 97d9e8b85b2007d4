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
import type { StereoSignal } from '@wild-needle/core/mir';
import { GUITARS_ALONE, type PartGains } from '@wild-needle/core/parts';
import { bandSignal, throughEars, type PieceSamples } from '@wild-needle/core/playback';
import { cleanPiecesAlong, piecesAlong } from '../../../recording/band-pieces';
import { isolationOf, toEarsOf } from '../../../recording/hearing';
import type { JudgeAnswer, JudgeTask } from './judge-client';

type ListenTask = Extract<JudgeTask, { kind: 'listen' }>;

let witness: Witness | null = null;

const answer = (message: JudgeAnswer): void => postMessage(message);

/** From what was heard before where that is the same sound; listens to the whole of it otherwise. */
async function witnessFor(task: ListenTask): Promise<Witness> {
  const { signal, document, hearing, addresses, cleanAddresses, before, isAnew, isSideUnknown } = task;
  const side = isSideUnknown && before ? ownSide(signal, before, document) : 'both';
  if (before && side === 'both' && !isAnew) return recallWitness(signal, before);
  const own = side === 'both' ? hearing : { ...hearing, ears: side };
  const toEars = (band: StereoSignal): StereoSignal => throughEars(band, isolationOf(own), toEarsOf(own));
  const heard = (pieceOf: PieceSamples, gains: PartGains): StereoSignal =>
    bandSignal(signal, 0, pieceOf, gains);
  const band = own.parts ? heard(await piecesAlong(signal, 0, addresses), own.parts) : signal;
  const clean = isAnew ? await cleanPiecesAlong(signal, 0, cleanAddresses, own.parts) : undefined;
  return createWitness(toEars(band), {
    guitars: clean && toEars(heard(clean, GUITARS_ALONE)),
    confirmed: settledIn(document),
    onProgress: (share) => answer({ kind: 'progress', share }),
  });
}

async function run(task: JudgeTask): Promise<void> {
  if (task.kind === 'recall') witness = paperWitness(task.before);
  if (task.kind === 'listen') witness = await witnessFor(task);
  if (witness) answer({ kind: 'judged', id: task.id, judgement: judgeSong(witness, task.document) });
}

/** What is asked meanwhile waits for what is listened to. */
let turn = Promise.resolve();

addEventListener('message', ({ data }: MessageEvent<JudgeTask>) => {
  turn = turn.then(async () => {
    try {
      await run(data);
    } catch (error) {
      answer({ kind: 'failed', message: error instanceof Error ? error.message : String(error) });
    }
  });
});
