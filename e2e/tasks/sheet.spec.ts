/** Writing a song up: the version that a player needs, on paper, with text that can be read back. */
import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, type Page } from '@playwright/test';
import { openSongSchema, ROUTES, songSummarySchema } from '@wild-needle/contract';
import { test } from '../support/app';
import { Shelf } from '../support/pages';

/** What Chromium prints, page by page, read by poppler. */
async function printed(
  page: Page,
  path: string,
): Promise<{ readonly pages: string[]; readonly bytes: Buffer }> {
  await page.pdf({ path, preferCSSPageSize: true, printBackground: true });
  const text = execFileSync('pdftotext', ['-layout', path, '-'], { encoding: 'utf8' });
  // A form feed ends each page.
  return { pages: text.split('\f').slice(0, -1), bytes: readFileSync(path) };
}

test('a two-string version is printed on whole pages, and its text can be read back', async ({
  demoApp,
  page,
}, info) => {
  const shelf = new Shelf(page);
  await shelf.open(demoApp.url);
  await (await shelf.openSong('Salt on the Wire')).ready();
  await page.getByRole('tab', { name: 'Sheet', exact: true }).click();
  const first = page.getByRole('article', { name: /^Sheet, page 1 of/ });
  await expect(first.getByRole('heading', { name: 'Salt on the Wire' })).toBeVisible();
  await expect(page.getByText('Every strum as it is written.')).toBeVisible();
  const count = await page.getByRole('article').count();

  const whole = await printed(page, info.outputPath('whole.pdf'));
  expect(whole.pages).toHaveLength(count);
  expect(whole.pages[0]).toContain('Copper Lantern');
  expect(whole.pages.join('')).toMatch(/Verse riff/);
  expect(whole.pages.at(-1)).toContain(`page ${count} of ${count}`);
  // A4 across, 297 by 210 mm at 72 points an inch: ISO 216.
  const size = execFileSync('pdfinfo', [info.outputPath('whole.pdf')], { encoding: 'utf8' });
  expect(size).toMatch(/Page size:\s+84[12]\.\d+ x 59[456]\.\d+ pts/);

  await page.keyboard.press('.');
  await expect(page.getByRole('radio', { name: /Two strings/ })).toBeChecked();
  await expect(page.getByText(/\d+ strums are played otherwise/)).toBeVisible();
  // Three digits of a power chord become two.
  const digits = (pages: readonly string[]): number =>
    (pages.join('').match(/^\s*\d+(\s+\d+)*\s*$/gm) ?? []).join(' ').trim().split(/\s+/).length;
  const two = await printed(page, info.outputPath('two.pdf'));
  expect(digits(two.pages)).toBeLessThan(digits(whole.pages));
  expect(two.pages[0]).toContain('Two strings');

  // The page comes back to the screen after printing.
  await page.evaluate(() => dispatchEvent(new Event('afterprint')));
  await expect(page.locator('.on-paper')).toHaveCount(0);

  // Black on white whatever the theme: the corner of the paper, as a grey value of a raw PGM.
  await page.emulateMedia({ colorScheme: 'dark' });
  await printed(page, info.outputPath('dark.pdf'));
  const corner = execFileSync('pdftoppm', ['-r', '10', '-gray', '-l', '1', info.outputPath('dark.pdf')]);
  expect(corner.subarray(0, 2).toString()).toBe('P5');
  expect(corner.at(-1)).toBe(255);

  await page.getByRole('radio', { name: 'Upright' }).click();
  await printed(page, info.outputPath('upright.pdf'));
  expect(execFileSync('pdfinfo', [info.outputPath('upright.pdf')], { encoding: 'utf8' })).toMatch(
    /Page size:\s+59[456]\.\d+ x 84[12]\.\d+ pts/,
  );

  const download = page.waitForEvent('download');
  await page.keyboard.press('1');
  const path = await (await download).path();
  expect(readFileSync(path, 'utf8')).toContain('Salt on the Wire');
});

test('the command line draws the same pages, as SVG and as PDF', async ({ demoApp }, info) => {
  const songs = songSummarySchema
    .array()
    .parse(await (await fetch(`${demoApp.url}${ROUTES.listSongs.path}`)).json());
  const { id } = songs.find((s) => s.title === 'Salt on the Wire')!;
  const { document } = openSongSchema.parse(await (await fetch(`${demoApp.url}/api/songs/${id}`)).json());
  const file = info.outputPath('salt.json');
  writeFileSync(file, JSON.stringify(document));
  const exported = (format: string): Buffer =>
    execFileSync('npm', ['run', '-s', 'export', '--', file, format], {
      cwd: join(import.meta.dirname, '../..'),
      maxBuffer: 50_000_000,
      stdio: ['ignore', 'pipe', 'ignore'],
    });
  const svg = exported('svg').toString('utf8');
  expect(svg).toMatch(/^<svg /);
  expect(svg).toContain('Salt on the Wire');
  expect(svg).toMatch(/url\("data:[^"]*font|url\("data:application/);
  const path = info.outputPath('salt.pdf');
  writeFileSync(path, exported('pdf'));
  const pages = execFileSync('pdftotext', [path, '-'], { encoding: 'utf8' }).split('\f').slice(0, -1);
  expect(pages.length).toBeGreaterThan(1);
  expect(pages.join('')).toMatch(/Verse riff/);
});
