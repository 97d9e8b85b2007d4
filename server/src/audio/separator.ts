/**
 * Taking a band apart in a process of its own: at low priority, with limited memory (`prlimit` of util-linux), so that neither playing nor
 * the server suffers, and ended at once when nobody wants it any more.
 */
import { spawn } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import type { Engine } from '@wild-needle/contract';

export interface SeparatorStart {
  readonly engine: Engine;
  /** Samples of 16 bits at 44.1 kHz, left and right in turn. */
  readonly rawPath: string;
  /** Where the network lies. */
  readonly networkDir: string;
}
export type SeparatorTask =
  ({ readonly kind: 'start' } & SeparatorStart) | { readonly kind: 'piece'; readonly index: number };
export type SeparatorAnswer =
  | { readonly kind: 'piece'; readonly index: number; readonly samples: Uint8Array }
  | { readonly kind: 'failure'; readonly message: string };

export interface Separator {
  /** Samples of a piece, see `interleaveParts` of core. One at a time; the raw file must be there with the first. */
  piece(index: number): Promise<Int16Array>;
  end(): void;
}

/** What may be written to, bytes: the network takes 3.9 GB, the built-in engine 0.3. */
const MEMORY_BYTES: Readonly<Record<Engine, number>> = { network: 6e9, rough: 2e9 };
/** Nearly last: audio that plays, requests and analyses come first. */
const NICENESS = '15';

/** Ends with `signal`; what is waited for is then rejected with its reason. */
export function startSeparator(start: SeparatorStart, signal: AbortSignal): Separator {
  const entry = fileURLToPath(new URL('./separator-process.ts', import.meta.url));
  const limits = [`--data=${MEMORY_BYTES[start.engine]}`, '--core=0'];
  const node = [process.execPath, '--expose-gc', '--import', 'tsx', entry];
  const child = spawn('prlimit', [...limits, 'nice', '-n', NICENESS, ...node], {
    stdio: ['ignore', 'inherit', 'pipe', 'ipc'],
    serialization: 'advanced',
  });
  let stderr = '';
  child.stderr?.on('data', (chunk: Buffer) => (stderr = (stderr + chunk.toString()).slice(-2000)));
  let waiting: { resolve: (samples: Int16Array) => void; reject: (error: Error) => void } | null = null;
  const fail = (error: Error): void => {
    waiting?.reject(error);
    waiting = null;
  };
  child.on('error', fail);
  child.on('exit', (code, by) => {
    fail(new Error(`the process that takes bands apart ended (${by ?? code}): ${stderr}`));
  });
  child.on('message', (answer: SeparatorAnswer) => {
    if (answer.kind === 'failure') fail(new Error(answer.message));
    else {
      // Copied, since samples must lie at a multiple of their size.
      waiting?.resolve(new Int16Array(new Uint8Array(answer.samples).buffer));
      waiting = null;
    }
  });
  const end = (): void => {
    child.removeAllListeners('exit');
    if (child.connected) child.disconnect();
    child.kill('SIGKILL');
  };
  const abort = (): void => {
    fail(signal.reason as Error);
    end();
  };
  signal.addEventListener('abort', abort, { once: true });
  const send = (task: SeparatorTask): void => {
    child.send(task, (error) => {
      if (error) fail(error);
    });
  };
  let isStarted = false;
  return {
    piece: (index) =>
      new Promise((resolve, reject) => {
        if (signal.aborted) {
          reject(signal.reason as Error);
          return;
        }
        waiting = { resolve, reject };
        if (!isStarted) send({ kind: 'start', ...start });
        isStarted = true;
        send({ kind: 'piece', index });
      }),
    end() {
      signal.removeEventListener('abort', abort);
      end();
    },
  };
}
