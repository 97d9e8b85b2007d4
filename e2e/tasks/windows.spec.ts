/** Two windows, a server that is away, a browser that is killed: what was written is there, and is told apart. */
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, expect, type BrowserContext, type Page } from '@playwright/test';
import { openSongSchema, type OpenSong } from '@wild-needle/contract';
import { test } from '../support/app';
import { renderRiff } from '../support/fluidsynth-riff';
import { killBrowser } from '../support/kill-browser';
import { Shelf, type Riffs } from '../support/pages';

const SONG = 'Salt on the Wire';
const band = (page: Page, text: string) => page.getByRole('alert').filter({ hasText: text });

async function openIn(context: BrowserContext, url: string): Promise<{ page: Page; riffs: Riffs }> {
  const page = await context.newPage();
  const shelf = new Shelf(page);
  await shelf.open(url);
  const riffs = await shelf.openSong(SONG);
  await riffs.ready();
  return { page, riffs };
}

const away = (context: BrowserContext): Promise<unknown> =>
  context.route('**/document', (route) => route.abort());

test('two windows write while the server is away: both versions are there when they are opened again', async ({
  demoApp,
  context,
}) => {
  const first = await openIn(context, demoApp.url);
  const second = await openIn(context, demoApp.url);
  await away(context);
  await first.page.keyboard.press('x');
  await second.page.keyboard.press('m');
  for (const { page } of [first, second]) {
    await expect(page.locator('wn-header')).toContainText('your work is kept on this computer');
  }
  const [mine, other] = [await second.riffs.strums(), await first.riffs.strums()];
  expect(mine).not.toEqual(other);

  // The other window still has its own: nothing of it is offered here, and nothing taken away.
  await second.page.close();
  await first.page.close();
  await context.unroute('**/document');
  const again = await openIn(context, demoApp.url);
  await expect.poll(() => again.riffs.strums()).toEqual(mine);
  const left = band(again.page, 'Another window has left a version of this song that was not saved');
  await left.getByRole('button', { name: 'Look at it' }).click();
  await expect.poll(() => again.riffs.strums()).toEqual(other);
  await expect(left).toBeHidden();
  await again.page.keyboard.press('Control+z');
  await expect.poll(() => again.riffs.strums()).toEqual(mine);
  await expect(again.riffs.saved).toBeVisible();
});

test('an answer that is lost on the way is no other window', async ({ demoApp, context }) => {
  const { page, riffs } = await openIn(context, demoApp.url);
  let lost = 0;
  await page.route('**/document', async (route) => {
    if (lost++ > 0) return route.continue();
    await route.fetch();
    await route.abort();
  });
  await page.keyboard.press('x');
  await expect.poll(() => lost).toBe(1);
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('m');
  await expect(riffs.saved).toBeVisible();
  await expect(band(page, 'changed in another window')).toBeHidden();
  const written = await riffs.strums();
  await page.reload();
  await expect.poll(() => riffs.strums()).toEqual(written);
});

test('a song that was removed in another window says so, and is not lost', async ({ app, context }) => {
  const page = await context.newPage();
  const shelf = new Shelf(page);
  await shelf.open(app.url);
  await shelf.choose(renderRiff(mkdtempSync(join(tmpdir(), 'wn-removed-'))));
  await expect(shelf.song('Four bar riff').getByText(/next: as it was heard/)).toBeVisible({
    timeout: 60_000,
  });
  const riffs = await shelf.openSong('Four bar riff');
  await riffs.ready();
  const [{ id }] = (await (await page.request.get(`${app.url}/api/songs`)).json()) as { id: string }[];
  await page.request.delete(`${app.url}/api/songs/${id}`);
  await page.keyboard.press('x');
  const removed = band(page, 'This song was removed in another window');
  await expect(removed).toBeVisible();
  await expect(page.locator('wn-header')).toContainText('the song was removed');
  const download = page.waitForEvent('download');
  await removed.getByRole('button', { name: 'Export it as a file' }).click();
  expect((await download).suggestedFilename()).toBe('four-bar-riff.json');
});

test('a browser that is killed right after an edit has it when it is opened again', async ({ demoApp }) => {
  const profile = mkdtempSync(join(tmpdir(), 'wn-profile-'));
  const { executablePath, args } = test.info().project.use.launchOptions ?? {};
  const launch = (): Promise<BrowserContext> =>
    chromium.launchPersistentContext(profile, {
      executablePath,
      args,
      viewport: { width: 1280, height: 800 },
    });
  const context = await launch();
  const { page, riffs } = await openIn(context, demoApp.url);
  // It is kept by the browser alone: the server has not heard of it.
  await away(context);
  const before = await riffs.strums();
  await page.keyboard.press('x');
  killBrowser(profile);
  await context.close().catch(() => undefined);

  const again = await launch();
  await again.route('**/document', (route) => route.abort());
  const reopened = await openIn(again, demoApp.url);
  await expect.poll(() => reopened.riffs.strums()).not.toEqual(before);
  await again.close();
});

test('a browser that forbids storage works, and says that it keeps no copy', async ({ demoApp, context }) => {
  await context.addInitScript(() => {
    for (const name of ['localStorage', 'indexedDB']) {
      Object.defineProperty(window, name, {
        get() {
          throw new DOMException('forbidden', 'SecurityError');
        },
      });
    }
  });
  const { page, riffs } = await openIn(context, demoApp.url);
  await page.keyboard.press('x');
  await expect(riffs.saved).toBeVisible();
  await away(context);
  await page.keyboard.press('x');
  await expect(page.locator('wn-header')).toContainText(
    'this browser keeps no copy, so leave the window open',
  );
  const download = page.waitForEvent('download');
  await band(page, "can't be kept by this browser")
    .getByRole('button', { name: 'Export it as a file' })
    .click();
  expect((await download).suggestedFilename()).toBe('salt-on-the-wire.json');
  await context.unroute('**/document');
  await expect(riffs.saved).toBeVisible();
});

test('what is set while the recording is heard stays, also where it was not saved before the draft came', async ({
  app,
  context,
}) => {
  const page = await context.newPage();
  const shelf = new Shelf(page);
  await shelf.open(app.url);
  await shelf.choose(renderRiff(mkdtempSync(join(tmpdir(), 'wn-draft-'))));
  await expect(shelf.song('Four bar riff')).toBeVisible({ timeout: 30_000 });
  const song = async (): Promise<OpenSong> => {
    const [{ id }] = (await (await page.request.get(`${app.url}/api/songs`)).json()) as { id: string }[];
    return openSongSchema.parse(await (await page.request.get(`${app.url}/api/songs/${id}`)).json());
  };
  const { id, job } = await song();
  expect(['queued', 'running']).toContain(job?.status);
  await away(context);
  await page.goto(`${app.url}/songs/${id}/tuning`);
  await page.getByRole('combobox', { name: 'Another tuning' }).click();
  await page.getByRole('option', { name: 'Drop C', exact: true }).click();
  await expect(page.locator('wn-header')).toContainText('your work is kept on this computer');
  await expect.poll(async () => (await song()).job?.status, { timeout: 60_000 }).toBe('done');
  expect((await song()).document.riffs.length).toBeGreaterThan(0);

  await context.unroute('**/document');
  const kept = page.getByRole('status').filter({ hasText: 'It left what you had set by hand: the tuning.' });
  await expect(kept).toBeVisible();
  await expect(page.locator('wn-header').getByText('Saved', { exact: true })).toBeVisible();
  await expect(band(page, 'changed in another window')).toBeHidden();
  const { document } = await song();
  expect(document.tuning.stringsMidi[0]).toBe(36);
  expect(document.riffs.length).toBeGreaterThan(0);
  await kept.getByRole('button', { name: 'All right' }).click();
  await expect(kept).toBeHidden();
});
