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
    return below.some((l) => /^[A-G][#b]? *\|-/.test(l)) && !line.includes('|') && !line.includes('PM');
  });
  return above.flatMap((line) => line.trim().split(/\s+/)).filter((word) => /^[A-G]/.test(word));
}

function rootOf(name: string): string {
  return /^[A-G]#?/.exec(name)?.[0] ?? name;
}

/** A chord struck again is the same step of the riff. */
function withoutRepeats(names: readonly string[]): string[] {
  return names.filter((name, i) => i === 0 || name !== names[i - 1]);
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

  // The roots come in the order in which they were rendered, none left out and none too many.
  const written = chordNames(tab);
  const played = RIFF.flat().filter((root) => root !== null);
  expect(withoutRepeats(written.map(rootOf))).toEqual(withoutRepeats(played.map((root) => NAMES[root % 12])));
  // All were power chords; the plain analysis must hear most of them as such.
  const powerChords = written.filter((name) => /^[A-G]#?5/.test(name));
  expect(powerChords.length / written.length).toBeGreaterThan(0.75);
  // E5 is played open on the lowest string.
  expect((await riffs.strums()).some((s) => s.startsWith('E5: string 6 fret 0, string 5 fret 2'))).toBe(true);
});
