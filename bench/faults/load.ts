/** A full shelf, a document of the largest size, and all at once: range requests, uploads, analyses; how long others wait. */
import { spawn } from 'node:child_process';
import { COUNT_LIMITS, PLAIN_RIFF, PLAIN_STRUM, type SongDocument } from '@wild-needle/core/riff';
import { importSong, openSong, saveSong, tone } from './songs';
import { System } from './system';

export interface LoadFigures {
  songs: number;
  largestMb: number;
  shelfMedianMs: number;
  shelfWorstMs: number;
  saveMedianMs: number;
  saveWorstMs: number;
  largestSaveMs: number;
  memoryMb: number;
  kbPerSong: number;
}

const SONGS = 500;
const UPLOADS = 20;
const RANGES = 50;
const ANALYSES = 10;
/** Bytes that a save may have, see MAX_DOCUMENT of the server. */
const LARGEST = 7_900_000;

const median = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1];

/** A document as large as the server takes: riffs full of strums. */
function largestDocument(document: SongDocument): SongDocument {
  const strum = (id: string, k: number): SongDocument['riffs'][number]['strums'][number] => ({
    ...PLAIN_STRUM,
    id,
    startTicks: 240 * k,
    durationTicks: 240,
    frets: [5, 6].map((string) => ({ string, fret: 3 })),
    note: '',
    trust: 'heard',
  });
  const each = JSON.stringify(strum('r10-s10000', 1000)).length + 1;
  const strums = Math.floor(LARGEST / each);
  const perRiff = Math.min(COUNT_LIMITS.strums, 4000);
  const riffs = Array.from({ length: Math.ceil(strums / perRiff) }, (_, r) => ({
    ...PLAIN_RIFF,
    id: `r${r}`,
    letter: 'A',
    name: '',
    bars: Array.from({ length: 300 }, () => ({ beats: 4, unit: 4 as const })),
    strums: Array.from({ length: Math.min(perRiff, strums - r * perRiff) }, (_, k) =>
      strum(`r${r}-s${k}`, k),
    ),
  }));
  return { ...document, riffs };
}

async function timed(work: () => Promise<unknown>): Promise<number> {
  const from = performance.now();
  await work();
  return performance.now() - from;
}

export async function measureLoad(): Promise<LoadFigures> {
  // Five hundred short analyses would hide what those of real length do: nothing is heard yet.
  const system = await System.start({ jobs: 0 });
  try {
    const diskBefore = system.diskBytes();
    const ids: { songId: string; recordingId: string }[] = [];
    for (let i = 0; i < SONGS; i++)
      ids.push(await importSong(system.url, tone(80 + i / 5, 1), `song ${i}.wav`));
    const kbPerSong = (system.diskBytes() - diskBefore) / SONGS / 1000;
    for (const { job } of (await (await fetch(`${system.url}/api/songs`)).json()) as {
      job: { id: string };
    }[]) {
      await fetch(`${system.url}/api/analyses/${job.id}/cancel`, { method: 'POST' });
    }
    await system.restartServer({ jobs: 1 });

    const opened = await openSong(system.url, ids[0].songId);
    const largest = largestDocument(opened.document);
    let { revision } = opened;
    const largestSaveMs = await timed(async () => {
      const answer = await saveSong(system.url, ids[0].songId, revision, largest);
      if (answer?.status !== 200) throw new Error(`the largest document: ${await answer?.text()}`);
    });

    let isDone = false;
    let memory = 0;
    const shelf: number[] = [];
    const saves: number[] = [];
    const second = ids[1].songId;
    let document = (await openSong(system.url, second)).document;
    revision = (await openSong(system.url, second)).revision;
    const watch = (async () => {
      while (!isDone) {
        shelf.push(await timed(() => fetch(`${system.url}/api/songs`).then((a) => a.arrayBuffer())));
        document = { ...document, title: `Load ${saves.length}` };
        saves.push(
          await timed(async () => {
            const answer = await saveSong(system.url, second, revision, document);
            if (answer?.status === 200) revision = ((await answer.json()) as { revision: number }).revision;
          }),
        );
        memory = Math.max(memory, system.serverMemory());
        await new Promise((resolve) => setTimeout(resolve, 20));
      }
    })();
    const press = spawn(
      'npx',
      ['tsx', 'bench/faults/press.ts', system.url, ...[UPLOADS, RANGES, ANALYSES].map(String)],
      { stdio: 'inherit' },
    );
    await new Promise((resolve) => press.on('exit', resolve));
    // A while longer, for the analyses.
    await new Promise((resolve) => setTimeout(resolve, 20_000));
    isDone = true;
    await watch;
    return {
      songs: SONGS,
      largestMb: JSON.stringify(largest).length / 1e6,
      shelfMedianMs: median(shelf),
      shelfWorstMs: Math.max(...shelf),
      saveMedianMs: median(saves),
      saveWorstMs: Math.max(...saves),
      largestSaveMs,
      memoryMb: memory / 1e6,
      kbPerSong,
    };
  } finally {
    await system.stop();
  }
}
