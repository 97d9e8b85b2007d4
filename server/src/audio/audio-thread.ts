/** Entry of the worker thread: hears one file, or lays one along another; answers progress and the result. */
import { setPriority } from 'node:os';
import { parentPort, workerData } from 'node:worker_threads';
import type { HeardSoFar } from '@wild-needle/core/mir';
import { alignFiles } from './align-files';
import { analyseFile } from './analyse-file';
import { AudioProblem } from './audio-problem';
import type { ThreadData, ThreadMessage } from './run-in-thread';
import { ToolFailure } from './run-tool';

/** Requests come first, and on a busy computer it still gets on. On Linux the priority is the thread's own (man 2 setpriority, under NOTES). */
const NICENESS = 5;
setPriority(NICENESS);

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
  const result =
    data.kind === 'analyse'
      ? await analyseFile(data.path, { ...data.given, onProgress, onPart })
      : await alignFiles(data.reference, data.other);
  send({ kind: 'done', result });
} catch (error) {
  if (error instanceof AudioProblem) send({ kind: 'problem', code: error.code, message: error.message });
  else if (error instanceof ToolFailure) send({ kind: 'failure', message: error.message });
  else throw error;
}
