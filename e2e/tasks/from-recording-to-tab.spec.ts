/** The whole way: a recording that others made goes in, a tab comes out that says what was played. */
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from '@playwright/test';
import { test } from '../support/app';
import { chordOf, renderRiff, RIFF } from '../support/fluidsynth-riff';
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

/** Open strings of standard tuning, 1 = highest. */
const OPEN = [64, 59, 55, 50, 45, 40];

/** MIDI notes of a strum as it is read out: 'E5: string 6 fret 0, string 5 fret 2'. */
function soundingNotes(spoken: string): number[] {
  const pressed = [...spoken.matchAll(/string (\d) fret (\d+)/g)];
  return pressed.map(([, string, fret]) => OPEN[Number(string) - 1] + Number(fret)).sort((a, b) => a - b);
}

test('takes a fluidsynth recording from import to text tab', async ({ app, page }) => {
  const recording = renderRiff(mkdtempSync(join(tmpdir(), 'wn-riff-')));
  const shelf = new Shelf(page);
  await shelf.open(app.url);
  await shelf.choose(recording);
  await expect(shelf.song('Four bar riff')).toBeVisible({ timeout: 30_000 });
  await expect(shelf.song('Four bar riff').getByText(/next: as it was heard/)).toBeVisible({
    timeout: 60_000,
  });
  await expect(shelf.song('Four bar riff').getByText('112 bpm')).toBeVisible();

  const riffs = await shelf.openSong('Four bar riff');
  const tab = await riffs.takeAway();
  expect(tab).toContain('Tuning: Standard');

  // Every strum that was rendered is written, at its place, and none too many.
  const written = chordNames(tab);
  const played = RIFF.flat().filter((root) => root !== null);
  expect(written.map(rootOf)).toEqual(played.map((root) => NAMES[root % 12]));
  expect(written.every((name) => /^[A-G]#?5$/.test(name))).toBe(true);

  // What string and fret sound is what was rendered: lowest note to the octave, and mostly all three notes.
  const sounding = (await riffs.strums()).map(soundingNotes);
  expect(sounding.map((notes) => notes[0])).toEqual(played);
  const complete = sounding.filter((notes, i) => notes.join() === chordOf(played[i]).join());
  expect(complete.length / played.length).toBeGreaterThan(0.6);
});
