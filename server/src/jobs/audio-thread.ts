/** Entry of the worker thread: reads one file, answers progress and the result. */
import { parentPort, workerData } from 'node:worker_threads';
import { analyseFile } from './analyse-file';
import { AudioProblem } from './decode';
import { inspectFile } from './inspect-file';
import type { ThreadMessage, ThreadTask } from './run-in-thread';

const { task, path } = workerData as { task: ThreadTask; path: string };
const send = (message: ThreadMessage): void => parentPort?.postMessage(message);
const onProgress = (share: number, doing: string): void => send({ kind: 'progress', share, doing });

try {
  const value = task === 'analyse' ? await analyseFile(path, onProgress) : await inspectFile(path);
  send({ kind: 'done', value });
} catch (error) {
  if (!(error instanceof AudioProblem)) throw error;
  send({ kind: 'problem', code: error.code, message: error.message });
}
