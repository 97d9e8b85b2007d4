/** Server, database and both are killed while somebody writes: what was acknowledged is there, and nothing needs a hand. */
import type { SongDocument } from '@wild-needle/core/riff';
import type { Chance } from './chance';
import { importSong, openSong, saveSong, tone } from './songs';
import type { System } from './system';

export interface KillFigures {
  kills: number;
  acknowledged: number;
  lost: number;
  /** Longest time from a kill to the next answer, s. */
  longestBackS: number;
}

const WHAT = ['server', 'database', 'database', 'both'] as const;

export async function killWhileWriting(system: System, chance: Chance, kills: number): Promise<KillFigures> {
  const { songId } = await importSong(system.url, tone(97, 1), 'killed.wav');
  const figures: KillFigures = { kills, acknowledged: 0, lost: 0, longestBackS: 0 };
  let { revision, document } = await openSong(system.url, songId);
  let edits = 0;

  for (let round = 0; round < kills; round++) {
    let isKilled = false;
    // What was acknowledged last, and what was sent after it: any of that may have been stored although its answer was lost.
    let possible = [document.title];
    const writing = (async () => {
      while (!isKilled) {
        const sent: SongDocument = { ...document, title: `Edit ${++edits}` };
        possible.push(sent.title);
        const answer = await saveSong(system.url, songId, revision, sent);
        if (answer?.status !== 200) continue;
        figures.acknowledged++;
        document = sent;
        possible = [sent.title];
        revision = ((await answer.json()) as { revision: number }).revision;
      }
    })();
    await new Promise((resolve) => setTimeout(resolve, 20 + chance.below(300)));
    const what = chance.of(WHAT);
    const from = performance.now();
    if (what !== 'server') await system.killDatabase();
    if (what !== 'database') {
      await system.killServer();
      isKilled = true;
      await system.startServer();
    }
    await system.isUp();
    isKilled = true;
    await writing;
    figures.longestBackS = Math.max(figures.longestBackS, (performance.now() - from) / 1000);
    const now = await openSong(system.url, songId);
    const isThere = possible.includes(now.document.title) && now.revision >= revision;
    if (!isThere) figures.lost++;
    ({ revision, document } = now);
  }
  return figures;
}
