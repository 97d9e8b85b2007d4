/** How fast a whole recording is taken apart roughly: read, taken apart in a process of its own, and coded; all but the database. */
import { copyFile, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pieceCount } from '@wild-needle/core/parts';
import { createSeparateHandler } from '../../server/src/jobs/run-separation';

/** Seconds of sound for a second of work. */
export async function timesRealTime(path: string, seconds: number): Promise<number> {
  const spoolDir = await mkdtemp(join(tmpdir(), 'wn-bench-'));
  const ready: number[] = [];
  const startMs = performance.now();
  const handler = createSeparateHandler(
    {
      claim: () => Promise.resolve(true),
      wanted: () => Promise.resolve({ fromS: 0, pieces: pieceCount(seconds), ready: [...ready] }),
      beat: () => Promise.resolve(true),
      addPiece: (_, { piece }) => {
        ready.push(piece);
        return Promise.resolve();
      },
      finish: () => Promise.resolve(),
      fail: (_, problem) => Promise.reject(new Error(problem)),
    },
    { writeTo: (_, to) => copyFile(path, to) },
    { spoolDir, networkDir: '' },
    (error) => process.stderr.write(`${String(error)}\n`),
  );
  await handler({ recordingId: 'bench', engine: 'rough' }, true);
  await rm(spoolDir, { recursive: true });
  return (seconds * 1000) / (performance.now() - startMs);
}
