/**
 * `npm run bench:screen -- separating`: does playing suffer while the band is taken apart? The clock of the sound device against that of the
 * computer (a device that is late stands still), and the frames of the screen, before and meanwhile. Written to `bench/screen/separating.json`.
 */
import { writeFileSync } from 'node:fs';
import { expect } from '@playwright/test';
import { test } from '../../e2e/support/app';
import { listenIn } from '../../e2e/support/loudspeaker';
import { Riffs, Shelf } from '../../e2e/support/pages';
import { bandWav } from '../../e2e/support/tone-wav';
import { frameGaps } from './frames';

const SONG_S = 150;
const WATCHED_MS = 12_000;

test('plays on while the band is taken apart', async ({ app, page }) => {
  test.setTimeout(300_000);
  const loudspeaker = await listenIn(page);
  const shelf = new Shelf(page);
  await shelf.open(app.url);
  await shelf.choose({ name: 'small band.wav', mimeType: 'audio/wav', buffer: bandWav(SONG_S) });
  await shelf.song('Small band').getByRole('link').click({ timeout: 30_000 });
  await new Riffs(page).ready();
  // The analysis is over: it is not what is measured.
  await expect(page.getByRole('progressbar', { name: 'Analysis' })).toBeHidden({ timeout: 240_000 });
  await page.keyboard.press('Space');
  await expect.poll(() => loudspeaker.level()).toBeGreaterThan(0.005);

  const watch = async (): Promise<{ soundOverClock: number; longestFrameMs: number }> => {
    const [startS, startMs] = [await loudspeaker.clockS(), performance.now()];
    const gaps = await frameGaps(page, () => page.waitForTimeout(WATCHED_MS));
    const passedS = (await loudspeaker.clockS()) - startS;
    return {
      soundOverClock: Number(((1000 * passedS) / (performance.now() - startMs)).toFixed(3)),
      longestFrameMs: Math.round(Math.max(...gaps)),
    };
  };
  const before = await watch();
  await page.getByRole('button', { name: 'Parts' }).click();
  const panel = page.getByRole('region', { name: 'Instruments' });
  await panel.getByRole('button', { name: /^Roughly/ }).click();
  const progress = panel.getByRole('progressbar', { name: 'Taking the band apart' });
  const pieces = async (): Promise<number> => Number(await progress.getAttribute('aria-valuenow'));
  await expect.poll(pieces, { timeout: 60_000 }).toBeGreaterThan(0);
  const [first, startMs] = [await pieces(), performance.now()];
  const meanwhile = await watch();
  const secondsApart = 6 * ((await pieces()) - first);
  const result = {
    command: 'npm run bench:screen -- separating',
    before,
    meanwhile,
    apartAgainstRealTime: Number((secondsApart / ((performance.now() - startMs) / 1000)).toFixed(1)),
  };
  writeFileSync('bench/screen/separating.json', `${JSON.stringify(result, null, 2)}\n`);
});
