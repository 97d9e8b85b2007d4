/**
 * Changes of analyses for the screens: one LISTEN connection to PostgreSQL, any number of listeners. Workers on
 * other machines are heard as well. After a lost connection everything unfinished is told anew.
 */
import { Client } from 'pg';
import type { AnalysisJob } from '@wild-needle/contract';
import { CHANNEL, type AnalysesStore } from './analyses.store';

const RECONNECT_MS = 1000;

export interface AnalysisEvents {
  /** Calls back for every change until the returned function is called. */
  subscribe(listener: (job: AnalysisJob) => void): () => void;
  close(): Promise<void>;
}

export async function listenForAnalyses(
  connectionString: string,
  store: Pick<AnalysesStore, 'get' | 'listUnfinished'>,
  log: (error: unknown) => void,
): Promise<AnalysisEvents> {
  const listeners = new Set<(job: AnalysisJob) => void>();
  const tell = (job: AnalysisJob): void => listeners.forEach((listener) => listener(job));
  let closed = false;
  let client: Client | null = null;

  async function connect(): Promise<void> {
    client = new Client({ connectionString });
    client.on('notification', ({ payload }) => {
      if (payload) store.get(payload).then((job) => job && tell(job), log);
    });
    // A lost connection is told several times; one that never came about ends in the catch of `reconnect`.
    let isLost = false;
    client.on('error', (error) => {
      if (isLost || !isConnected) return;
      isLost = true;
      log(error);
      if (!closed) setTimeout(() => void reconnect(), RECONNECT_MS);
    });
    let isConnected = false;
    await client.connect();
    isConnected = true;
    await client.query(`LISTEN ${CHANNEL}`);
  }
  async function reconnect(): Promise<void> {
    try {
      await connect();
      (await store.listUnfinished()).forEach(tell);
    } catch (error) {
      log(error);
      if (!closed) setTimeout(() => void reconnect(), RECONNECT_MS);
    }
  }
  await connect();
  return {
    subscribe(listener) {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    async close() {
      closed = true;
      await client?.end();
    },
  };
}
