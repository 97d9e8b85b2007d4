/** The band taken apart: heard by what reaches the loudspeaker, and gone on with after the server was killed. */
import { expect, type Page } from '@playwright/test';
import { instrumentsSchema, openSongSchema, ROUTES, songSummarySchema } from '@wild-needle/contract';
import { test } from '../support/app';
import { listenIn } from '../support/loudspeaker';
import { Riffs, Shelf } from '../support/pages';
import { takeAway } from '../support/take-away';
import { bandWav, BAND_HZ } from '../support/tone-wav';

async function openBand(page: Page, url: string, seconds: number): Promise<void> {
  const shelf = new Shelf(page);
  await shelf.open(url);
  await shelf.choose({ name: 'small band.wav', mimeType: 'audio/wav', buffer: bandWav(seconds) });
  await shelf.song('Small band').getByRole('link').click({ timeout: 30_000 });
  await new Riffs(page).ready();
}

test('takes drums and bass out of the loop, and brings all back', async ({ app, page }) => {
  const loudspeaker = await listenIn(page);
  await openBand(page, app.url, 25);
  const panel = page.getByRole('region', { name: 'Instruments' });
  const share = (hz: number): Promise<number> => loudspeaker.toneDb(hz);

  // Past the last focus come the instruments, and have the keys.
  for (let press = 0; press < 5; press++) await page.keyboard.press('f');
  await expect(panel).toBeFocused();
  await expect(panel).toContainText('Take the band apart?');
  await panel.getByRole('button', { name: /^Roughly/ }).click();
  await expect(panel).toContainText('The band is apart', { timeout: 60_000 });
  await page.keyboard.press('Space');
  await expect.poll(() => share(BAND_HZ.bass)).toBeGreaterThan(-50);
  await expect.poll(() => share(BAND_HZ.guitar)).toBeGreaterThan(-60);
  const [bass, guitar] = [await share(BAND_HZ.bass), await share(BAND_HZ.guitar)];

  await panel.focus();
  await page.keyboard.press('6');
  await page.keyboard.press('5');
  await expect(panel.getByRole('button', { name: 'Without the bass' })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  await expect.poll(() => share(BAND_HZ.bass)).toBeLessThan(bass - 15);
  // The needle may stand between two guitars' beats for a moment: they are where they were.
  await expect.poll(() => share(BAND_HZ.guitar)).toBeGreaterThan(guitar - 4);

  await page.keyboard.press('2');
  await expect(panel.getByRole('group', { name: 'Bass' })).toContainText('alone');
  await expect.poll(() => share(BAND_HZ.guitar)).toBeLessThan(guitar - 15);
  await expect.poll(() => share(BAND_HZ.bass)).toBeGreaterThan(bass - 4);

  // Kept with the song, and of no effect while the panel is closed.
  await page.keyboard.press('Escape');
  await expect(panel).not.toBeFocused();
  await page.keyboard.press('f');
  await expect(panel).toBeFocused();
  await page.keyboard.press('f');
  await expect(panel).toBeHidden();
  await expect.poll(() => share(BAND_HZ.guitar)).toBeGreaterThan(guitar - 4);
  await page.reload();
  await new Riffs(page).ready();
  await page.getByRole('button', { name: 'Parts' }).click();
  await expect(panel.getByRole('button', { name: 'Without the drums' })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  await expect(panel.getByRole('button', { name: 'Only the bass' })).toHaveAttribute('aria-pressed', 'true');

  await panel.getByRole('button', { name: 'Remove the parts' }).click();
  await expect(panel).toContainText('Take the band apart?');
});

/** RMS of the samples of a WAV file of 16 bits, full scale = 1. */
function loudness(wav: Buffer): number {
  const samples = new Int16Array(new Uint8Array(wav.subarray(44, wav.length - (wav.length % 2))).buffer);
  return Math.sqrt(samples.reduce((sum, v) => sum + (v / 32768) ** 2, 0) / samples.length);
}

test('judges by the parts that sound, and takes them away as a file', async ({ riffApp, page }) => {
  test.setTimeout(120_000);
  const answer = await page.request.get(`${riffApp.url}${ROUTES.listSongs.path}`);
  const [{ id }] = songSummarySchema.array().parse(await answer.json());
  await page.goto(`${riffApp.url}/songs/${id}/check`);
  await expect(page.getByRole('button', { name: 'Play' })).toBeEnabled({ timeout: 30_000 });
  const comparing = page.getByText(/Comparing/);
  await expect(comparing).toHaveCount(0, { timeout: 60_000 });
  const compare = page.getByRole('button', { name: /Compare with these ears/ });
  await expect(compare).toBeHidden();

  await page.getByRole('button', { name: 'Parts' }).click();
  const panel = page.getByRole('region', { name: 'Instruments' });
  await panel.getByRole('button', { name: /^Roughly/ }).click();
  await expect(panel).toContainText('The band is apart', { timeout: 60_000 });
  // The rough engine says nothing of what is missing, since it can't tell.
  await expect(panel).not.toContainText('found');
  await panel.getByRole('button', { name: 'Without the drums' }).click();
  const [piece] = await Promise.all([
    page.waitForRequest(/\/instruments\/rough\/0\?rate=22050/),
    compare.click(),
  ]);
  expect((await piece.response())?.status()).toBe(200);
  await expect(compare).toBeHidden();
  await expect(comparing).toHaveCount(0, { timeout: 60_000 });

  // Ear first beside the panel: nothing lies over anything else.
  await page.getByRole('radio', { name: /^Ear first/ }).click();
  const rows = [
    page.getByRole('img', { name: 'Covered: what the program heard' }),
    page.locator('wn-compare-lanes'),
    page.getByRole('grid', { name: 'Root on the neck' }),
    page.getByRole('button', { name: /^That is my guess/ }),
    panel,
  ];
  await expect(rows[0]).toBeVisible();
  const boxes = await Promise.all(rows.map(async (row) => (await row.boundingBox())!));
  boxes.slice(1).forEach((box, i) => expect(box.y).toBeGreaterThanOrEqual(boxes[i].y + boxes[i].height - 2));
  await page.getByRole('radio', { name: 'Shown' }).click();

  await page.getByRole('tab', { name: 'Sheet', exact: true }).click();
  await expect(page.getByRole('article', { name: /^Sheet, page 1 of/ })).toBeVisible();
  // At another pitch it goes through the stretcher, each time anew.
  const without = loudness((await takeAway(page, '8')).bytes);
  expect(without).toBeGreaterThan(0.05);
  expect(loudness((await takeAway(page, '8')).bytes)).toBeCloseTo(without, 2);
  await panel.getByRole('button', { name: 'Without the drums' }).click();
  await expect(panel.getByRole('button', { name: 'Without the drums' })).toHaveAttribute(
    'aria-pressed',
    'false',
  );
  await panel.getByRole('button', { name: 'Only the drums' }).click();
  await expect(panel.getByRole('group', { name: 'Drums' })).toContainText('alone');
  await page.keyboard.press('Escape');
  const alone = loudness((await takeAway(page, '8')).bytes);
  expect(alone).toBeGreaterThan(0);
  expect(alone).toBeLessThan(without / 2);
});

test('measures the guitars by themselves where the network has them, with the panel closed', async ({
  riffApp,
  page,
}) => {
  test.setTimeout(120_000);
  const listed = await page.request.get(`${riffApp.url}${ROUTES.listSongs.path}`);
  const [{ id }] = songSummarySchema.array().parse(await listed.json());
  await page.goto(`${riffApp.url}/songs/${id}/riffs`);
  await new Riffs(page).ready();
  const panel = page.getByRole('region', { name: 'Instruments' });
  await page.getByRole('button', { name: 'Parts' }).click();
  const roughly = panel.getByRole('button', { name: /^Roughly/ });
  await expect(roughly.or(panel.getByText('The band is apart'))).toBeVisible();
  if (await roughly.isVisible()) await roughly.click();
  await expect(panel).toContainText('The band is apart', { timeout: 60_000 });

  // The network itself is not here: the built-in engine's pieces stand in for its.
  await page.route('**/instruments', async (route) => {
    const answer = await route.fetch();
    const info = instrumentsSchema.parse(await answer.json());
    const separations = info.separations.map((s) => ({ ...s, engine: 'network' as const }));
    await route.fulfill({ json: { ...info, separations } });
  });
  await page.route('**/instruments/network/*', (route) =>
    route.continue({ url: route.request().url().replace('/network/', '/rough/') }),
  );
  await page.reload();
  await new Riffs(page).ready();
  await expect(panel).toBeHidden();
  const [piece] = await Promise.all([
    page.waitForRequest(/\/instruments\/network\/0\?rate=22050/),
    page.getByRole('button', { name: 'Measure again' }).click(),
  ]);
  expect((await piece.response())?.status()).toBe(200);
  await expect(page.getByText(/heard anew|Heard the same/)).toBeVisible({ timeout: 60_000 });
});

test('goes on where it was when the server is killed in the middle', async ({ ownApp, page }) => {
  test.setTimeout(240_000);
  await openBand(page, ownApp.url, 70);
  await page.getByRole('button', { name: 'Parts' }).click();
  const panel = page.getByRole('region', { name: 'Instruments' });
  await panel.getByRole('button', { name: /^Roughly/ }).click();
  const progress = panel.getByRole('progressbar', { name: 'Taking the band apart' });
  await expect.poll(() => progress.getAttribute('aria-valuenow'), { timeout: 60_000 }).toMatch(/^[2-9]/);
  await ownApp.kill();
  await expect(panel.getByRole('alert')).toContainText('Is it still running?');
  await ownApp.restart();
  // What was apart is apart, and the rest comes by itself.
  const songId = new URL(page.url()).pathname.split('/')[2];
  const song = openSongSchema.parse(
    await (await page.request.get(`${ownApp.url}/api/songs/${songId}`)).json(),
  );
  const address = `${ownApp.url}/api/recordings/${song.recording!.id}/instruments`;
  const { separations } = instrumentsSchema.parse(await (await page.request.get(address)).json());
  expect(separations[0].ready.length).toBeGreaterThanOrEqual(2);
  await expect(panel).toContainText('The band is apart', { timeout: 120_000 });
});
