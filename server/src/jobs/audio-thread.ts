/** Entry of the worker thread: reads one file, answers progress and the result. */
import { parentPort, workerData } from 'node:worker_threads';
import type { HeardSoFar } from '@wild-needle/core/mir';
import { analyseFile } from './analyse-file';
import { AudioProblem } from './decode';
import { inspectFile } from './inspect-file';
import type { ThreadData, ThreadMessage } from './run-in-thread';

const data = workerData as ThreadData;
const send = (message: ThreadMessage): void => parentPort?.postMessage(message);
const onPart = ({ reference, strums, grid }: HeardSoFar): void =>
  send({
    kind: 'part',
    soFar: {
      referenceOffsetCents: reference?.cents ?? null,
      tempoBpm: grid?.tempoBpm ?? null,
      meter: grid?.meter ?? null,
      downbeatsS: grid?.downbeatsS.slice() ?? [],
      strumsS: strums.map((s) => s.timeS),
    },
  });
const onProgress = (share: number, doing: string): void => send({ kind: 'progress', share, doing });

try {
  const value =
    data.task === 'analyse'
      ? await analyseFile(data.path, { ...data.given, onProgress, onPart })
      : await inspectFile(data.path);
  send({ kind: 'done', value });
} catch (error) {
  if (!(error instanceof AudioProblem)) throw error;
  send({ kind: 'problem', code: error.code, message: error.message });
}
