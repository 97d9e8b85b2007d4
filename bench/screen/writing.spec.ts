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
import { keyTimes } from './key-times';
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

  const keys = Array.from({ length: KEYS }, (_, i) => ['ArrowRight', '5', 'm', 'Control+ArrowUp'][i % 4]);
  const keyToPaintMs = await keyTimes(page, keys);
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
    keyToPaintMs,
    keyToPaint95ShareOf32Ms: Number((keyToPaintMs.percentile95 / 32).toFixed(2)),
  };
  writeFileSync('bench/screen/writing.json', `${JSON.stringify(results, null, 2)}\n`);
  process.stdout.write(`${JSON.stringify(results, null, 2)}\n`);
});
