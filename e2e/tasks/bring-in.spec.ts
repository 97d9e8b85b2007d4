/** Files taken away and brought back: as a new song, with mistakes put right, and held against a recording that fluidsynth played. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, type Page } from '@playwright/test';
import { openSongSchema, ROUTES, songSummarySchema, type OpenSong } from '@wild-needle/contract';
import { test, type App } from '../support/app';
import { RIFF } from '../support/fluidsynth-riff';
import { takeAway } from '../support/take-away';

type Document = OpenSong['document'];

async function songs(app: App): Promise<{ id: string; title: string }[]> {
  return songSummarySchema.array().parse(await (await fetch(`${app.url}${ROUTES.listSongs.path}`)).json());
}

async function open(app: App, id: string): Promise<OpenSong> {
  return openSongSchema.parse(
    await (await fetch(`${app.url}${ROUTES.openSong.path.replace(':id', id)}`)).json(),
  );
}

async function openSheet(app: App, page: Page, id: string): Promise<void> {
  await page.goto(`${app.url}/songs/${id}/sheet`);
  await expect(page.getByRole('article', { name: /^Sheet, page 1 of/ })).toBeVisible();
}

const bringIn = (page: Page, path: string): Promise<void> =>
  page.getByLabel('A file to bring in').setInputFiles(path);

/** What each riff plays, and which of them comes when. */
function played({ riffs, sections, tuning }: Document): unknown {
  return {
    strings: tuning.stringsMidi,
    riffs: riffs.map((r) => ({
      letter: r.letter,
      strums: r.strums.map(({ startTicks, frets, palmMute, dead, rest, marks }) => [
        startTicks,
        [...frets].sort((a, b) => a.string - b.string),
        palmMute,
        dead,
        rest,
        marks,
      ]),
    })),
    order: sections.map(({ name, passes, transpose, riffId }) => [
      name,
      passes,
      transpose,
      riffs.find((r) => r.id === riffId)?.letter,
    ]),
  };
}

test('takes a song away as MusicXML and brings it back as a new one that plays the same', async ({
  demoApp,
  page,
}) => {
  const [{ id }] = (await songs(demoApp)).filter((s) => s.title === 'Salt on the Wire');
  await openSheet(demoApp, page, id);
  const away = await takeAway(page, '2');
  expect(away.name).toBe('salt-on-the-wire.musicxml');

  await bringIn(page, away.path);
  await expect(page.getByText(/Three riffs and a road map in this file/)).toBeVisible();
  await page.keyboard.press('3');
  await expect(page.getByRole('grid', { name: 'Written riff' })).toBeVisible();
  const copy = /songs\/([\w-]+)\/riffs/.exec(page.url())?.[1] ?? '';
  expect(copy).not.toBe(id);
  expect(played((await open(demoApp, copy)).document)).toEqual(played((await open(demoApp, id)).document));
  // It has no sound: its tab is what plays, not the song before, and there is nothing to check against.
  await expect(page.getByRole('button', { name: 'Play' })).toBeEnabled();
  await expect(page.getByRole('radio', { name: 'My tab' })).toBeChecked();
  await page.getByRole('tab', { name: 'Check', exact: true }).click();
  await expect(page.getByRole('heading', { name: /This song has no recording/ })).toBeVisible();
  // Others look for the one song of this name.
  await fetch(`${demoApp.url}${ROUTES.deleteSong.path.replace(':id', copy)}`, { method: 'DELETE' });
});

test('puts right what a tab written by hand got wrong, and holds it against the recording', async ({
  riffApp,
  page,
}) => {
  test.setTimeout(90_000);
  const [{ id }] = await songs(riffApp);
  // Eighths of power chords, three strings each, on the strings of standard tuning.
  const line = (string: string, row: (root: number) => string): string =>
    `${string}|${RIFF.map((bar) => bar.map((root) => (root === null ? '-' : row(root)).padEnd(3, '-')).join('')).join('|')}|`;
  const empty = (): string => '-';
  const right = [
    line('e', empty),
    line('B', empty),
    line('G', empty),
    line('D', (root) => String(root - 38)),
    line('A', (root) => String(root - 38)),
    line('E', (root) => String(root - 40)),
  ];
  // Two slips of the pen: a sign that is none, and a line that ends early.
  const wrong = [...right];
  wrong[4] = wrong[4].replace('|5', '|?');
  wrong[3] = wrong[3].slice(0, -6);
  const path = join(mkdtempSync(join(tmpdir(), 'wn-hand-')), 'by-hand.txt');
  writeFileSync(path, `Riff A\n\n${wrong.join('\n')}\n`);

  await openSheet(riffApp, page, id);
  await bringIn(page, path);
  await expect(page.getByText(/One riff in this file/)).toBeVisible();
  const remarks = page.getByRole('list', { name: 'Not understood' });
  await expect(remarks.getByRole('listitem')).toHaveCount(2);
  await expect(remarks).toContainText(/line 7, column \d+.*“\?” is no sign of a tab/);
  await expect(remarks).toContainText(/line 6, column \d+.*ends before the others/);

  await remarks.getByRole('button', { name: /no sign of a tab/ }).click();
  const text = page.getByRole('textbox', { name: 'The tab, to put right' });
  await expect(text).toBeFocused();
  await page.keyboard.type('5');
  await expect(remarks.getByRole('listitem')).toHaveCount(1);
  await text.fill(`Riff A\n\n${right.join('\n')}\n`);
  await expect(page.getByText('All of it is understood.')).toBeVisible();
  await expect(page.getByRole('list', { name: 'What would change' })).toBeVisible();
  await page.getByRole('button', { name: /In place of mine/ }).click();
  await expect(page.getByText('The riff is on Riffs')).toBeVisible();
  await expect(page.locator('wn-header').getByText('Saved', { exact: true })).toBeVisible();

  await page.getByRole('tab', { name: 'Check', exact: true }).click();
  await expect(page.getByText(/All \d+ settled/)).toBeVisible({ timeout: 60_000 });
});

test('takes the sound and the page away, and says what it can not read', async ({ riffApp, page }) => {
  const [{ id }] = await songs(riffApp);
  await openSheet(riffApp, page, id);
  await expect(page.getByRole('button', { name: 'Play' })).toBeEnabled();
  await page.keyboard.press('l');
  const loop = await takeAway(page, '8');
  expect(loop.name).toMatch(/-loop\.wav$/);
  expect(loop.bytes.subarray(0, 4).toString()).toBe('RIFF');
  // A loop of two seconds and more, two channels of 16 bits.
  expect(loop.bytes.length).toBeGreaterThan(2 * 4 * 44_100);
  const svg = (await takeAway(page, '0')).bytes.toString();
  expect(svg).toMatch(/<svg[^>]/);
  expect(svg).toContain('data:font/woff2');

  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: /^Sheet \.pdf/ }).click(),
  ]);
  const pdf = await download.path();
  const text = execFileSync('pdftotext', ['-layout', pdf, '-'], { encoding: 'utf8' });
  expect(text.split('\f').length - 1).toBe(await page.getByRole('article').count());
  expect(text).toMatch(/page 1 of/);
  expect(execFileSync('pdffonts', [pdf], { encoding: 'utf8' })).toMatch(/BigShoulders.*yes yes yes/);

  const broken = join(mkdtempSync(join(tmpdir(), 'wn-broken-')), 'broken.musicxml');
  writeFileSync(broken, '<score-partwise><part></score-partwise>');
  await bringIn(page, broken);
  await expect(page.getByRole('alert')).toContainText(/This file can’t be read: line 1, column \d+/);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('article', { name: /^Sheet, page 1 of/ })).toBeVisible();
});
