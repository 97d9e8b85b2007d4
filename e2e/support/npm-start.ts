/** `npm start` as a process of the tests': started on a folder, asked over HTTP, stopped. */
import { spawn, type ChildProcess } from 'node:child_process';
import { readdirSync, readFileSync, readlinkSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { join } from 'node:path';

export const ROOT = join(import.meta.dirname, '../..');

async function freePort(): Promise<number> {
  const server = createServer();
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as AddressInfo;
  await new Promise((resolve) => server.close(resolve));
  return port;
}

export interface Run {
  readonly child: ChildProcess;
  readonly url: string;
  /** What it has printed so far. */
  said(): string;
  /** Until it is ready. */
  ready(): Promise<void>;
  ended: Promise<number | null>;
}

const runs: Run[] = [];

/** Ends all that a test has started. */
export async function stopAll(): Promise<void> {
  await Promise.all(runs.splice(0).map(stop));
}

/** Starts it on a data folder, through npm if wanted. */
export async function start(
  dataDir: string,
  { throughNpm = false, port }: { throughNpm?: boolean; port?: number } = {},
): Promise<Run> {
  const at = port ?? (await freePort());
  const [command, args] = throughNpm ? ['npm', ['start']] : [process.execPath, ['scripts/start.mjs']];
  const child = spawn(command, args, {
    cwd: ROOT,
    stdio: ['ignore', 'pipe', 'pipe'],
    env: { ...process.env, WN_DATA_DIR: dataDir, WN_PORT: String(at), WN_DEMO: '0' },
    detached: true,
  });
  let said = '';
  const isReady = new Promise<void>((resolve) => {
    const take = (chunk: Buffer): void => {
      said += chunk.toString();
      if (said.includes('is ready at')) resolve();
    };
    child.stdout.on('data', take);
    child.stderr.on('data', take);
  });
  const ended = new Promise<number | null>((resolve) => child.on('exit', resolve));
  const run: Run = {
    child,
    url: `http://127.0.0.1:${at}`,
    said: () => said,
    ended,
    ready: async () => {
      const isOver = ended.then((code) => {
        throw new Error(`it ended with ${code}: ${said}`);
      });
      await Promise.race([isReady, isOver]);
    },
  };
  runs.push(run);
  return run;
}

/** Running processes of which something holds. */
function processesThat(holds: (pid: number) => boolean): number[] {
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .map(Number)
    .filter((pid) => {
      try {
        return holds(pid) && !readFileSync(`/proc/${pid}/stat`, 'utf8').includes(') Z ');
      } catch {
        return false;
      }
    });
}

/** Server and database of a folder. */
export function processesOf(dataDir: string): number[] {
  return processesThat((pid) =>
    readFileSync(`/proc/${pid}/environ`, 'utf8').includes(`WN_DATA_DIR=${dataDir}\0`),
  );
}

/** Whatever runs inside of a folder. */
export function processesIn(folder: string): number[] {
  return processesThat((pid) => readlinkSync(`/proc/${pid}/cwd`).startsWith(folder));
}

export async function stop(run: Run): Promise<void> {
  if (run.child.exitCode === null && run.child.signalCode === null) run.child.kill('SIGTERM');
  await run.ended;
}

export const health = async ({ url }: Run): Promise<unknown> => (await fetch(`${url}/api/health`)).json();
export const keep = (run: Run, name: string): Promise<Response> =>
  fetch(`${run.url}/api/shapes/3fa85f64-5717-4562-b3fc-2c963f66afa6`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ name, notes: [{ strings: 0, frets: 0 }] }),
  });
export const kept = async (run: Run): Promise<string[]> =>
  ((await (await fetch(`${run.url}/api/shapes`)).json()) as { name: string }[]).map(({ name }) => name);
export const databasePid = (dataDir: string): number =>
  Number(readFileSync(join(dataDir, 'postgres/postmaster.pid'), 'utf8').split('\n')[0]);
