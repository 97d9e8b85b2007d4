/** A server and a database of the campaign's own, each of which can be killed. */
import { spawn, type ChildProcess } from 'node:child_process';
import { chmodSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startPostgres, type Cluster } from '../../scripts/lib/postgres.mjs';

const ROOT = join(import.meta.dirname, '../..');

export class System {
  private server: ChildProcess | null = null;
  private port = 0;

  private constructor(
    readonly folder: string,
    private readonly cluster: Cluster,
    private jobs: number,
  ) {}

  static async start({ jobs }: { readonly jobs: number }): Promise<System> {
    const folder = mkdtempSync(join(tmpdir(), 'wn-faults-'));
    chmodSync(folder, 0o711);
    const cluster = await startPostgres(folder);
    cluster.watch();
    const system = new System(folder, cluster, jobs);
    await system.startServer();
    return system;
  }

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  get serverPid(): number {
    return this.server?.pid ?? 0;
  }

  async startServer(): Promise<void> {
    const child = spawn(process.execPath, ['--import', 'tsx', 'server/src/app/main.ts'], {
      cwd: ROOT,
      stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
      env: {
        ...process.env,
        WN_DATABASE_URL: this.cluster.url,
        WN_DATA_DIR: this.folder,
        WN_PORT: String(this.port),
        WN_JOBS: String(this.jobs),
      },
    });
    this.server = child;
    this.port = await new Promise<number>((resolve, reject) => {
      child.on('message', (message: { port?: number; problem?: string }) => {
        if (message.port === undefined) reject(new Error(message.problem));
        else resolve(message.port);
      });
      child.on('exit', (code) => reject(new Error(`the server ended with ${code}`)));
    });
  }

  async restartServer({ jobs }: { readonly jobs: number }): Promise<void> {
    await this.killServer();
    this.jobs = jobs;
    await this.startServer();
  }

  async killServer(): Promise<void> {
    const ended = new Promise((resolve) => this.server?.once('exit', resolve));
    this.server?.kill('SIGKILL');
    await ended;
  }

  /** It is started again by whoever watches over it, as by `npm start`; one that is still being started is waited for. */
  async killDatabase(): Promise<void> {
    while (!this.isKilled()) await new Promise((resolve) => setTimeout(resolve, 50));
  }

  /** False where none runs: what an earlier kill has left of it may still answer a question, and its pid file stays. */
  private isKilled(): boolean {
    try {
      const [pid] = readFileSync(join(this.cluster.folder, 'postmaster.pid'), 'utf8').split('\n');
      return process.kill(Number(pid), 'SIGKILL');
    } catch (error) {
      if (['ESRCH', 'ENOENT'].includes(String((error as NodeJS.ErrnoException).code))) return false;
      throw error;
    }
  }

  /** Until both answer. */
  async isUp(): Promise<void> {
    for (;;) {
      const health = await fetch(`${this.url}/api/health`).catch(() => null);
      if (health?.status === 200) return;
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
  }

  /** Files of imports and analyses under way. */
  spooled(): string[] {
    return readdirSync(this.folder)
      .filter((name) => name.startsWith('spool-'))
      .flatMap((name) => readdirSync(join(this.folder, name)));
  }

  /** Resident memory of the server, bytes (man 5 proc, VmRSS). */
  serverMemory(): number {
    const status = readFileSync(`/proc/${this.serverPid}/status`, 'utf8');
    return 1024 * Number(/VmRSS:\s+(\d+)/.exec(status)?.[1] ?? 0);
  }

  /** Bytes of all that the database keeps. */
  diskBytes(): number {
    const sizeOf = (path: string): number => {
      const facts = statSync(path, { throwIfNoEntry: false });
      if (!facts?.isDirectory()) return facts?.size ?? 0;
      return readdirSync(path).reduce((sum, name) => sum + sizeOf(join(path, name)), 0);
    };
    return sizeOf(this.cluster.folder);
  }

  async stop(): Promise<void> {
    this.server?.kill('SIGTERM');
    await new Promise((resolve) => this.server?.once('exit', resolve));
    await this.cluster.stop();
    // The processes of a database that was killed a moment ago may still be writing.
    rmSync(this.folder, { recursive: true, force: true, maxRetries: 10, retryDelay: 300 });
  }
}
