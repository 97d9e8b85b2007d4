/** Two windows write to one song at the same time: each revision belongs to one of them. */
import { importSong, openSong, saveSong, tone } from './songs';
import type { System } from './system';

export interface RaceFigures {
  races: number;
  /** Races that did not end with one saved and one told. */
  odd: string[];
}

export async function raceWindows(system: System, races: number): Promise<RaceFigures> {
  const { songId } = await importSong(system.url, tone(113, 1), 'raced.wav');
  const odd: string[] = [];
  for (let race = 0; race < races; race++) {
    const { revision, document } = await openSong(system.url, songId);
    const titles = [`One ${race}`, `Two ${race}`];
    const answers = await Promise.all(
      titles.map((title) => saveSong(system.url, songId, revision, { ...document, title })),
    );
    const statuses = answers.map((answer) => answer?.status);
    const now = await openSong(system.url, songId);
    const winner = titles[statuses.indexOf(200)];
    const isRight =
      [...statuses].sort().join() === '200,409' &&
      now.document.title === winner &&
      now.revision === revision + 1;
    if (!isRight) odd.push(`race ${race}: ${statuses.join()}, then ${now.document.title} at ${now.revision}`);
  }
  return { races, odd };
}
