/**
 * `tsx training/generate.ts FROM TO`: makes the songs of these seeds and keeps them in `.cache/training/songs`.
 * A song that is there already is left alone.
 */
import { existsSync, mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { chordExamples } from './chord-examples';
import { generateSong } from './material/song';
import { kindOfSong } from './songs';
import { strokeExamples } from './stroke-examples';

const SONGS = join(import.meta.dirname, '../.cache/training/songs');

const [from, to] = process.argv.slice(2).map(Number);
mkdirSync(SONGS, { recursive: true });
for (let seed = from; seed < to; seed++) {
  const stem = join(SONGS, String(seed));
  if (existsSync(`${stem}.json`)) continue;
  const { truth, channels, samples } = generateSong(seed);
  writeFileSync(`${stem}.pcm`, samples);
  writeFileSync(`${stem}.json`, JSON.stringify({ channels, truth }));
  // The meter alone is learned from those that are counted.
  if (kindOfSong(seed).startsWith('counted')) continue;
  // While the cores are at it: the training reads them from there.
  strokeExamples(seed);
  chordExamples(seed);
  process.stderr.write(`${seed} `);
}
