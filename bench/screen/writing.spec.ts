/**
 * `npm run bench:screen -- writing`: the Riffs screen with forty passes of four bars. Frames a second while it plays and while
 * the passes are scrolled, and the time from a key to the frame that shows what it wrote, written to
 * `bench/screen/writing.json`.
 */
import { writeFileSync } from 'node:fs';
import { expect } from '@playwright/test';
import { DEMO_SONGS } from '../../demo/riffs/songs';
import { test } from '../../e2e/support/app';
import { Shelf } from '../../e2e/support/pages';
import { frameGaps } from './frames';
import { putSong, type MadeSong } from './put-song';

const PASSES = 40;
const KEYS = 240;
const TITLE = 'Forty passes';

/** One riff of four bars, forty times. */
function fortyPasses(): MadeSong {
  const song = DEMO_SONGS[0];
  const riff = song.document.riffs[1];
  const length = riff.bars.length;
  const strums = [0, 1].flatMap((half) =>
    riff.strums.map((s) => ({
      ...s,
      id: `${s.id}-${half}`,
      startTicks: s.startTicks + half * length * 3840,
    })),
  );
  const four = { ...riff, bars: [...riff.bars, ...riff.bars], strums };
  const beatS = song.document.grid.beatsS[1] - song.document.grid.beatsS[0];
  const bars = PASSES * four.bars.length;
  const document = {
    ...song.document,
    title: TITLE,
    riffs: [four],
    sections: [{ ...song.document.sections[0], riffId: four.id, startBar: 0, passes: PASSES, transpose: 0 }],
    grid: {
      beatsS: Array.from({ length: bars * 4 + 1 }, (_, i) => 0.6 + i * beatS),
      bars: Array.from({ length: bars }, (_, i) => ({ beat: 4 * i, beats: 4, unit: 4 as const })),
    },
  };
  return { ...song, document, played: document };
}

const perSecond = (gaps: readonly number[]): number =>
  Number(((1000 * gaps.length) / gaps.reduce((a, b) => a + b, 0)).toFixed(1));
const quantile = (values: readonly number[], q: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(q * values.length))];

test('draws forty passes and answers to keys', async ({ app, page }) => {
  test.setTimeout(600_000);
  await putSong(page, app.url, fortyPasses());
  const riffs = await new Shelf(page).openSong(TITLE);
  await riffs.ready();
  await expect(page.locator('wn-pass-row')).toHaveCount(PASSES);
  const atRest = await frameGaps(page, () => Promise.resolve());

  const scrolled = await frameGaps(page, async () => {
    const list = page.locator('.passes');
    for (let i = 0; i < 40; i++) {
      await list.evaluate((element) => element.scrollBy(0, 60));
      await page.waitForTimeout(60);
    }
  });
  await page.keyboard.press('Space');
  const playing = await frameGaps(page, () => Promise.resolve());
  await page.keyboard.press('Space');

  // From the key to the end of the frame that shows it: the second animation frame behind it.
  await page.evaluate(() => {
    const times: number[] = [];
    Object.assign(window, { keyTimes: times });
    addEventListener(
      'keydown',
      (event) => {
        // A modifier alone writes nothing.
        if (event.key === 'Control') return;
        requestAnimationFrame(() => {
          const channel = new MessageChannel();
          channel.port1.onmessage = () => times.push(performance.now() - event.timeStamp);
          channel.port2.postMessage(null);
        });
      },
      true,
    );
  });
  for (let i = 0; i < KEYS; i++) {
    await page.keyboard.press(['ArrowRight', '5', 'm', 'Control+ArrowUp'][i % 4]);
    await page.waitForTimeout(80);
  }
  const keyTimes = await page.evaluate(() => (window as unknown as { keyTimes: number[] }).keyTimes);
  const results = {
    command: 'npm run bench:screen -- writing',
    passes: PASSES,
    framesPerSecond: {
      atRest: perSecond(atRest),
      scrolling: perSecond(scrolled),
      playing: perSecond(playing),
    },
    playingAgainstRest: Number((perSecond(playing) / perSecond(atRest)).toFixed(3)),
    scrollingAgainstRest: Number((perSecond(scrolled) / perSecond(atRest)).toFixed(3)),
    keyToPaintMs: {
      median: Number(quantile(keyTimes, 0.5).toFixed(1)),
      percentile95: Number(quantile(keyTimes, 0.95).toFixed(1)),
    },
    keyToPaint95ShareOf32Ms: Number((quantile(keyTimes, 0.95) / 32).toFixed(2)),
  };
  writeFileSync('bench/screen/writing.json', `${JSON.stringify(results, null, 2)}\n`);
  process.stdout.write(`${JSON.stringify(results, null, 2)}\n`);
});
