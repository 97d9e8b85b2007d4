/** The ears of the deck, by what reaches the loudspeaker. */
import { expect } from '@playwright/test';
import { test } from '../support/app';
import { listenIn } from '../support/loudspeaker';
import { Riffs, Shelf } from '../support/pages';
import { toneWav } from '../support/tone-wav';

const LEFT_HZ = 250;
const RIGHT_HZ = 1000;
/** A tone of the file in one ear alone; measured: -25.5. */
const FULL_DB = -28;

test('takes one side out of two, the middle, and a band', async ({ app, page }) => {
  const loudspeaker = await listenIn(page);
  const shelf = new Shelf(page);
  await shelf.open(app.url);
  const buffer = toneWav([LEFT_HZ, RIGHT_HZ], 30);
  await shelf.choose({ name: 'two tones.wav', mimeType: 'audio/wav', buffer });
  await shelf.song('Two tones').getByRole('link').click({ timeout: 30_000 });
  const riffs = new Riffs(page);
  await riffs.ready();
  await page.keyboard.press('Space');
  /** How much louder the left tone is than the right one, dB. */
  const leftOverRight = async (): Promise<number> =>
    (await loudspeaker.toneDb(LEFT_HZ)) - (await loudspeaker.toneDb(RIGHT_HZ));
  await expect.poll(() => loudspeaker.level()).toBeGreaterThan(0.02);
  await expect.poll(async () => Math.abs(await leftOverRight())).toBeLessThan(6);

  await page.keyboard.press('e');
  await expect(page.getByRole('radio', { name: 'Left' })).toBeChecked();
  await expect.poll(leftOverRight).toBeGreaterThan(30);
  await page.keyboard.press('e');
  await expect.poll(leftOverRight).toBeLessThan(-30);

  // Both tones stand at the sides: nothing is left in the middle.
  let loud = -Infinity;
  // One side fades into the next: it is at its level once it is as loud as it was made.
  await expect.poll(async () => (loud = await loudspeaker.toneDb(RIGHT_HZ))).toBeGreaterThan(FULL_DB);
  await page.keyboard.press('e');
  await expect.poll(() => loudspeaker.toneDb(RIGHT_HZ)).toBeLessThan(loud - 12);

  await page.getByRole('radio', { name: 'Both' }).click();
  await page.getByRole('radio', { name: 'Mids' }).click();
  await expect.poll(() => loudspeaker.level()).toBeGreaterThan(0.02);
  await page.getByRole('radio', { name: 'Highs' }).click();
  await expect.poll(() => loudspeaker.toneDb(LEFT_HZ)).toBeLessThan(loud - 18);
});

test('clicks on the beats and counts a bar in', async ({ demoApp, page }) => {
  const loudspeaker = await listenIn(page);
  const shelf = new Shelf(page);
  await shelf.open(demoApp.url);
  const riffs = await shelf.openSong('Salt on the Wire');
  await riffs.ready();
  const volume = page.getByRole('slider', { name: 'Volume' });
  await page.keyboard.press('k');
  await page.keyboard.press('n');
  const before = await riffs.clock();
  await page.keyboard.press('Space');
  // While the bar is counted, large, the needle rests.
  await expect(page.locator('.counted')).toHaveText(/[1-4]/);
  await expect.poll(() => loudspeaker.level(), { intervals: [40] }).toBeGreaterThan(0.005);
  expect(await riffs.clock()).toBeCloseTo(before, 1);
  // Then the recording runs; the click is as quiet as the rest.
  await expect.poll(() => riffs.clock()).toBeGreaterThan(before + 0.5);
  await expect(page.locator('.counted')).toHaveCount(0);
  await volume.fill('0');
  await loudspeaker.listenFor(0.2);
  for (let i = 0; i < 12; i++) {
    expect(await loudspeaker.level()).toBeLessThan(0.002);
    await loudspeaker.listenFor(0.1);
  }
});

test('moves and grows the loop by beats', async ({ demoApp, page }) => {
  const shelf = new Shelf(page);
  await shelf.open(demoApp.url);
  const riffs = await shelf.openSong('Salt on the Wire');
  await riffs.ready();
  await page.getByRole('button', { name: 'Loop pass 1 bars 1–2' }).click();
  const loop = page.getByRole('button', { name: /Pass|\d–\d/, pressed: true }).first();
  await expect(loop).toContainText('Pass 1');
  await page.keyboard.press('}');
  await expect(loop).toContainText(/\d+\.\d–\d+\.\d/);
  await page.keyboard.press('{');
  await expect(loop).toContainText('Pass 1');
  await page.keyboard.press(')');
  await expect(loop).toContainText(/\d+\.\d–\d+\.\d/);
  await page.keyboard.press('(');
  await expect(loop).toContainText('Pass 1');
});

test('plays the written tab as loud as the recording, then one in each ear', async ({ demoApp, page }) => {
  const loudspeaker = await listenIn(page);
  const shelf = new Shelf(page);
  await shelf.open(demoApp.url);
  const riffs = await shelf.openSong('Salt on the Wire');
  await riffs.ready();
  await page.getByRole('button', { name: 'Loop pass 1 bars 1–2' }).click();
  await page.keyboard.press('Space');
  /** Mean over a while: strokes come and go. */
  const loudness = async (): Promise<number> => {
    let sum = 0;
    for (let i = 0; i < 12; i++) {
      sum += (await loudspeaker.level()) ** 2;
      await loudspeaker.listenFor(0.09);
    }
    return 10 * Math.log10(sum / 12 + 1e-12);
  };
  await expect.poll(() => loudspeaker.level()).toBeGreaterThan(0.02);
  const recording = await loudness();
  await page.keyboard.press('a');
  await expect(page.getByRole('radio', { name: 'My tab' })).toBeChecked();
  await loudspeaker.listenFor(1.5);
  expect(Math.abs((await loudness()) - recording)).toBeLessThan(7);
  await page.keyboard.press('a');
  await expect(page.getByRole('radio', { name: 'Each ear' })).toBeChecked();
  await loudspeaker.listenFor(0.5);
  expect(await loudness()).toBeGreaterThan(recording - 12);
  await page.keyboard.press('a');
  await expect(page.getByRole('radio', { name: 'Recording' })).toBeChecked();
});

test('listens through a window on the stage', async ({ app, page }) => {
  const loudspeaker = await listenIn(page);
  const shelf = new Shelf(page);
  await shelf.open(app.url);
  const buffer = toneWav([LEFT_HZ, RIGHT_HZ], 30);
  await shelf.choose({ name: 'two tones.wav', mimeType: 'audio/wav', buffer });
  await shelf.song('Two tones').getByRole('link').click({ timeout: 30_000 });
  await new Riffs(page).ready();
  await page.keyboard.press('Space');
  await page.getByRole('radio', { name: 'One spot' }).click();
  const stage = page.getByRole('slider', { name: 'Place on the stage' });
  await expect(stage).toHaveAttribute('aria-valuetext', /60 % left/);
  const leftOverRight = async (): Promise<number> =>
    (await loudspeaker.toneDb(LEFT_HZ)) - (await loudspeaker.toneDb(RIGHT_HZ));
  await stage.focus();
  for (let i = 0; i < 8; i++) await page.keyboard.press('ArrowLeft');
  await expect.poll(leftOverRight).toBeGreaterThan(12);
  const box = (await stage.boundingBox())!;
  await page.mouse.move(box.x + 6, box.y + 30);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width - 2, box.y + 30, { steps: 6 });
  await page.mouse.up();
  await expect(stage).toHaveAttribute('aria-valuetext', /right/);
  await expect.poll(leftOverRight).toBeLessThan(-12);
});
