/** A take of one's own: recorded from the simulated player, there after the browser was killed, and a song when it is kept. */
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, expect, type BrowserContext, type Page } from '@playwright/test';
import { z } from 'zod';
import { importAnswerSchema, ROUTES, songSummarySchema, takeSchema } from '@wild-needle/contract';
import { test, type App } from '../support/app';
import { withInput } from '../support/fake-input';
import { killBrowser } from '../support/kill-browser';
import { listenIn } from '../support/loudspeaker';
import { Shelf } from '../support/pages';
import { toneWav } from '../support/tone-wav';

/** Of the record that is played to. */
const RECORD_HZ = 1500;

async function listed<Row>(app: App, path: string, row: z.ZodType<Row>): Promise<Row[]> {
  return z.array(row).parse(await (await fetch(`${app.url}${path}`)).json());
}

async function armSimulated(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Which input' }).click();
  await page.getByRole('menuitem', { name: 'Simulated player' }).click();
  await expect(page.getByText('A simulated player plays.')).toBeVisible();
  await expect(page.getByRole('meter', { name: 'Level of the input' })).toHaveAccessibleName(/Level/);
}

test('a browser that is killed half a minute into a take has all but the last second of it on the shelf', async ({
  app,
}) => {
  const profile = mkdtempSync(join(tmpdir(), 'wn-profile-'));
  const { executablePath, args } = test.info().project.use.launchOptions ?? {};
  const launch = (): Promise<BrowserContext> =>
    chromium.launchPersistentContext(profile, {
      executablePath,
      args,
      viewport: { width: 1280, height: 800 },
    });
  const context = await launch();
  const page = context.pages()[0] ?? (await context.newPage());
  await new Shelf(page).open(app.url);
  await armSimulated(page);
  await page.getByRole('checkbox', { name: 'Count a bar in' }).uncheck();
  await page.getByRole('button', { name: /^Record/ }).click();
  await expect(page.getByRole('button', { name: 'Stop, 0:30' })).toBeVisible({ timeout: 60_000 });
  killBrowser(profile);
  await context.close().catch(() => undefined);
  const [take] = await listed(app, ROUTES.listTakes.path, takeSchema);
  expect(take.seconds).toBeGreaterThanOrEqual(29);
  expect(take.seconds).toBeLessThan(33);

  // It is on the shelf, and a song once it is kept.
  const again = await launch();
  const shelf = again.pages()[0] ?? (await again.newPage());
  await new Shelf(shelf).open(app.url);
  await expect(shelf.getByText(/^Take of 0:(29|3\d)$/)).toBeVisible({ timeout: 20_000 });
  await shelf.getByRole('textbox', { name: 'Title of the take' }).fill('Kitchen take');
  await shelf.getByRole('button', { name: 'Keep it' }).click();
  await expect(new Shelf(shelf).song('Kitchen take')).toBeVisible();
  await expect(shelf.getByText(/^Take of/)).toBeHidden();
  const songs = await listed(app, ROUTES.listSongs.path, songSummarySchema);
  expect(songs.find((s) => s.title === 'Kitchen take')?.durationS).toBeCloseTo(take.seconds, 2);
  await again.close();
});

test('a take is counted in, waits for a server that is away, and can be thrown away', async ({
  ownApp,
  page,
}) => {
  await new Shelf(page).open(ownApp.url);
  await armSimulated(page);
  await page.keyboard.press('r');
  await expect(page.getByRole('button', { name: /Counting in/ })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Stop, 0:02' })).toBeVisible();
  await ownApp.kill();
  await expect(page.getByText('The server does not answer: what you play waits here.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Stop, 0:05' })).toBeVisible();
  await ownApp.restart();
  await expect(page.getByText('The server does not answer: what you play waits here.')).toBeHidden();
  await page.keyboard.press('r');
  const take = page.getByText(/^Take of 0:\d\d$/);
  await expect(take).toBeVisible({ timeout: 20_000 });
  const [kept] = await listed(ownApp, ROUTES.listTakes.path, takeSchema);
  expect(kept.seconds).toBeGreaterThan(5);
  await page.getByRole('button', { name: 'Throw away' }).click();
  await page.getByRole('button', { name: 'For good' }).click();
  await expect(take).toBeHidden();
  expect(await listed(ownApp, ROUTES.listTakes.path, takeSchema)).toEqual([]);
});

test('an input of this computer is recorded: its level is seen, and its sound is in the take', async ({
  app,
}) => {
  const browser = await withInput(test.info());
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await new Shelf(page).open(app.url);
  await page.keyboard.press('r');
  const meter = page.getByRole('meter', { name: 'Level of the input' });
  await expect.poll(async () => Number(await meter.getAttribute('aria-valuenow'))).toBeGreaterThan(-40);
  await page.getByRole('checkbox', { name: 'Count a bar in' }).uncheck();
  await page.getByRole('button', { name: /^Record/ }).click();
  await expect(page.getByRole('button', { name: 'Stop, 0:03' })).toBeVisible();
  await page.keyboard.press('r');
  await expect(page.getByText(/^Take of 0:0\d$/)).toBeVisible({ timeout: 20_000 });
  const [take] = await listed(app, ROUTES.listTakes.path, takeSchema);
  const kept = await fetch(`${app.url}/api/takes/${take.id}/keep`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ title: 'Beeps' }),
  });
  const { recordingId } = importAnswerSchema.parse(await kept.json());
  const envelope = await fetch(`${app.url}/api/recordings/${recordingId}/envelope`);
  expect(Math.max(...new Uint8Array(await envelope.arrayBuffer()))).toBe(255);
  await browser.close();
});

test('a browser that keeps the input to itself is told in a sentence', async ({ app, page }) => {
  await page.addInitScript(() => {
    navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException('no', 'NotAllowedError'));
  });
  await new Shelf(page).open(app.url);
  await page.keyboard.press('r');
  await expect(page.getByText('The browser keeps the input to itself.')).toBeVisible();
});

test('a disk that is full in the middle of a take is told, and what was recorded before is kept', async ({
  app,
  page,
}) => {
  let pieces = 0;
  // As the server answers when the database has no more room.
  await page.route('**/api/takes/*/pieces/*', (route) =>
    ++pieces > 6
      ? route.fulfill({
          status: 507,
          json: { code: 'disk-full', message: 'There is no room on the disk.', issues: [] },
        })
      : route.continue(),
  );
  await new Shelf(page).open(app.url);
  await armSimulated(page);
  await page.getByRole('checkbox', { name: 'Count a bar in' }).uncheck();
  await page.keyboard.press('r');
  await expect(page.getByText('There is no room for more: what was recorded before is kept.')).toBeVisible({
    timeout: 20_000,
  });
  await expect(page.getByText('Take of 0:03')).toBeVisible();
  const [take] = await listed(app, ROUTES.listTakes.path, takeSchema);
  expect(take.seconds).toBeCloseTo(3, 0);
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText(/^Take of/)).toBeHidden();
});

test('a take is played to a record in the headphones, and is another recording of its song at once', async ({
  app,
  page,
}) => {
  const loudspeaker = await listenIn(page);
  const shelf = new Shelf(page);
  await shelf.open(app.url);
  const buffer = toneWav([RECORD_HZ], 30);
  await shelf.choose({ name: 'pier lamp.wav', mimeType: 'audio/wav', buffer });
  await expect(shelf.song('Pier lamp')).toBeVisible({ timeout: 30_000 });
  await armSimulated(page);
  await page.getByRole('combobox', { name: 'In the headphones' }).selectOption('Pier lamp');
  await page.getByRole('checkbox', { name: 'Count a bar in' }).uncheck();
  await page.keyboard.press('r');
  // The simulated player isn't heard: what sounds is the record.
  await expect.poll(() => loudspeaker.toneDb(RECORD_HZ)).toBeGreaterThan(-40);
  await expect(page.getByRole('button', { name: 'Stop, 0:03' })).toBeVisible();
  await page.keyboard.press('r');
  await expect.poll(() => loudspeaker.toneDb(RECORD_HZ)).toBeLessThan(-80);
  // Of this window, and over: there at once.
  const kept = page.locator('wn-kept-takes');
  await expect(kept).toContainText(/Take of 0:0\d|in another window/);
  expect(await kept.innerText()).toContain('Take of');
  const as = page.getByRole('combobox', { name: 'Keep it as' });
  await expect(as.locator('option:checked')).toHaveText(/a recording of Pier lamp/);
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(as).toBeHidden();
  await shelf.song('Pier lamp').getByRole('link').click();
  await expect(page.getByRole('button', { name: /^Recording: / })).toContainText('1 of 2');
});
