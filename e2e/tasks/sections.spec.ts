/** The form of a song and its beats, put right by hand. */
import { readFileSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';
import { openSongSchema } from '@wild-needle/contract';
import { test } from '../support/app';
import { Shelf } from '../support/pages';

async function openSections(page: Page, url: string): Promise<void> {
  const shelf = new Shelf(page);
  await shelf.open(url);
  const riffs = await shelf.openSong('Nine Volt Harbour');
  await riffs.ready();
  await page.getByRole('tab', { name: 'Sections' }).click();
  await expect(page.getByRole('table')).toContainText('Passes compared');
}

async function savedGrid(page: Page, url: string): Promise<{ beats: number; bars: number }> {
  const songId = new URL(page.url()).pathname.split('/')[2];
  const answer: unknown = await (await page.request.get(`${url}/api/songs/${songId}`)).json();
  const { grid } = openSongSchema.parse(answer).document;
  return { beats: grid.beatsS.length, bars: grid.bars.length };
}

test('repairs a grid at half the tempo by one key, and every strum stays where it sounds', async ({
  demoApp,
  page,
}) => {
  await openSections(page, demoApp.url);
  const before = await savedGrid(page, demoApp.url);
  // The error: the program has taken two beats for one.
  await page.keyboard.press('d');
  await expect(page.getByText(`${2 * before.bars} bars`)).toBeVisible();
  // The repair.
  await page.keyboard.press('h');
  await expect(page.getByText(`, ${before.bars} bars`)).toBeVisible();
  await expect(page.getByText('Saved')).toBeVisible();
  expect((await savedGrid(page, demoApp.url)).bars).toBe(before.bars);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Saved')).toBeVisible();
  expect(await savedGrid(page, demoApp.url)).toEqual(before);
});

test('splits, renames and joins sections, and keeps them over a reload', async ({ demoApp, page }) => {
  await openSections(page, demoApp.url);
  const rows = page.locator('tbody tr');
  const count = await rows.count();
  await rows.nth(1).click();
  const name = page.getByRole('textbox', { name: 'Name of the section' });
  await name.fill('First verse');
  await name.press('Enter');
  await name.blur();
  await page.keyboard.press('i');
  await expect(rows).toHaveCount(count + 1);
  await expect(rows.nth(2)).toContainText('First verse, second part');
  await expect(page.getByText('Saved')).toBeVisible();
  await page.reload();
  await expect(rows.nth(1)).toContainText('First verse');
  await rows.nth(1).click();
  await page.keyboard.press('j');
  await expect(rows).toHaveCount(count);
  await expect(page.getByLabel('Order of play')).toContainText('First verse');
});

test('takes the sections away as a label track and brings them in again', async ({ demoApp, page }) => {
  await openSections(page, demoApp.url);
  const rows = page.locator('tbody tr');
  const count = await rows.count();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page
      .getByRole('button', { name: 'Take away or bring in' })
      .click()
      .then(() => page.getByRole('menuitem', { name: 'Label track', exact: true }).click()),
  ]);
  const text = readFileSync(await download.path(), 'utf8');
  expect(text.trim().split('\n')).toHaveLength(count);
  const renamed = text.replace(/\t[^\t\n]*\n/, '\tOpening\n');
  await page
    .getByLabel('Label track', { exact: true })
    .setInputFiles({ name: 'sections.txt', mimeType: 'text/plain', buffer: Buffer.from(renamed) });
  await expect(rows.first()).toContainText('Opening');
  await expect(rows).toHaveCount(count);
  await page
    .getByLabel('Label track', { exact: true })
    .setInputFiles({ name: 'list.txt', mimeType: 'text/plain', buffer: Buffer.from('verse one') });
  await expect(page.getByText(/This is no label track: line 1/)).toBeVisible();
});

test('taps a grid along with the recording', async ({ demoApp, page }) => {
  await openSections(page, demoApp.url);
  await page.keyboard.press('Space');
  await page.waitForTimeout(1000);
  for (let i = 0; i < 6; i++) {
    await page.keyboard.press('t');
    await page.waitForTimeout(500);
  }
  await page.keyboard.press('Space');
  const words = await page.getByText(/\d+ bpm, \d+ bars/).textContent();
  const bpm = Number(/(\d+) bpm/.exec(words ?? '')?.[1]);
  // Taps half a second apart, as exactly as a test runner keeps time.
  expect(bpm).toBeGreaterThan(85);
  expect(bpm).toBeLessThan(125);
});
