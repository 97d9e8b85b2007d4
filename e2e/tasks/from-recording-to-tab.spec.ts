/** The whole way: a recording that others made goes in, a tab comes out that says what was played. */
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from '@playwright/test';
import { test } from '../support/app';
import { renderRiff, RIFF } from '../support/fluidsynth-riff';
import { Shelf } from '../support/pages';

const NAMES = ['C', 'C#', 'D', 'D#', 'E', 'F', 'F#', 'G', 'G#', 'A', 'A#', 'B'];

/** Chord names above the strings of a text tab, in order, over all riffs. */
function chordNames(tab: string): string[] {
  const lines = tab.split('\n');
  const above = lines.filter((line, i) => {
    const below = lines.slice(i + 1, i + 3);
    return below.some((l) => /^[A-G][#b]? *\|-/.test(l)) && !line.includes('|') && !/PM/.test(line);
  });
  return above.flatMap((line) => line.trim().split(/\s+/)).filter((word) => /^[A-G]/.test(word));
}

test('takes a fluidsynth recording from import to text tab', async ({ app, page }) => {
  const recording = renderRiff(mkdtempSync(join(tmpdir(), 'wn-riff-')));
  const shelf = new Shelf(page);
  await shelf.open(app.url);
  await shelf.choose(recording);
  await expect(shelf.song('Four bar riff')).toBeVisible({ timeout: 30_000 });
  await expect(shelf.song('Four bar riff').getByText(/strums checked/)).toBeVisible({ timeout: 60_000 });
  await expect(shelf.song('Four bar riff').getByText('112 bpm')).toBeVisible();

  const riffs = await shelf.openSong('Four bar riff');
  const tab = await riffs.takeAway();
  expect(tab).toContain('Tuning: Standard');

  // Every chord that was played is written, as a power chord, and no other.
  const played = RIFF.flat().filter((root) => root !== null).map((root) => `${NAMES[root % 12]}5`);
  const written = chordNames(tab);
  expect(new Set(written)).toEqual(new Set(played));
  // In the order of the riff: it is found again as a run of the written names.
  const order = written.join(' ');
  const repeats = played.join(' ');
  expect(`${order} ${order}`).toContain(repeats);
  // E5 is played open on the lowest string.
  expect((await riffs.strums()).some((s) => s.startsWith('E5: string 6 fret 0, string 5 fret 2'))).toBe(true);
});
