/**
 * `npm run bench:screen`: how soon the Riffs screen of a 4-minute song shows its tab, and how evenly it draws while
 * the needle moves and while the selection does. Medians over rounds, written to `bench/screen/results.json`.
 */
import { writeFileSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';
import { test } from '../../e2e/support/app';
import { Shelf } from '../../e2e/support/pages';
import { longSong } from './four-minutes';
import { frameGaps } from './frames';
import { putSong } from './put-song';

const ROUNDS = 5;

function median(values: readonly number[]): number {
  return [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];
}

/** Milliseconds from the click on the song to the first frame that holds its written riff and the groove. */
async function openingMs(page: Page): Promise<number> {
  const link = new Shelf(page).song('Four minutes').getByRole('link');
  await link.waitFor();
  return link.evaluate(
    (element: HTMLElement) =>
      new Promise<number>((resolve) => {
        const start = performance.now();
        const look = (): void => {
          const drawn =
            document.querySelector('wn-written-row .block') &&
            document.querySelector('wn-pass-row path')?.getAttribute('d');
          if (drawn) requestAnimationFrame(() => resolve(performance.now() - start));
          else requestAnimationFrame(look);
        };
        element.click();
        requestAnimationFrame(look);
      }),
  );
}

interface Frames {
  readonly medianMs: number;
  readonly longestMs: number;
  readonly perSecond: number;
}

/** Distances of the frames while `act` goes on. */
async function frames(page: Page, act: () => Promise<void>): Promise<Frames> {
  const gaps = await frameGaps(page, act);
  return {
    medianMs: median(gaps),
    longestMs: Math.max(...gaps),
    perSecond: (1000 * gaps.length) / gaps.reduce((a, b) => a + b, 0),
  };
}

function medianFrames(rounds: readonly Frames[]): Frames {
  const of = (pick: (f: Frames) => number): number => Number(median(rounds.map(pick)).toFixed(1));
  return {
    medianMs: of((f) => f.medianMs),
    longestMs: of((f) => f.longestMs),
    perSecond: of((f) => f.perSecond),
  };
}

test('opens a 4-minute song and draws it', async ({ app, page }) => {
  test.setTimeout(300_000);
  await putSong(page, app.url, longSong());
  const opening: number[] = [];
  for (let i = 0; i < ROUNDS; i++) {
    await new Shelf(page).open(app.url);
    opening.push(await openingMs(page));
  }
  await expect(page.getByRole('button', { name: 'Play' })).toBeEnabled({ timeout: 30_000 });

  const idle: Frames[] = [];
  const needle: Frames[] = [];
  const selection: Frames[] = [];
  for (let i = 0; i < ROUNDS; i++) {
    idle.push(await frames(page, () => Promise.resolve()));
    await page.keyboard.press('Space');
    needle.push(await frames(page, () => Promise.resolve()));
    await page.keyboard.press('Space');
    selection.push(
      await frames(page, async () => {
        for (let key = 0; key < 40; key++) await page.keyboard.press('ArrowRight', { delay: 40 });
      }),
    );
  }
  const idleFrames = medianFrames(idle);
  const results = {
    command: 'npm run bench:screen',
    openingMs: Math.round(median(opening)),
    openingShareOfOneSecond: Number((median(opening) / 1000).toFixed(2)),
    idle: idleFrames,
    needleMoves: medianFrames(needle),
    selectionMoves: medianFrames(selection),
    /** Frames per second against those of the same page at rest, in the same run. */
    needleAgainstIdle: Number((medianFrames(needle).perSecond / idleFrames.perSecond).toFixed(3)),
    selectionAgainstIdle: Number((medianFrames(selection).perSecond / idleFrames.perSecond).toFixed(3)),
  };
  writeFileSync('bench/screen/results.json', `${JSON.stringify(results, null, 2)}\n`);
  process.stdout.write(`${JSON.stringify(results, null, 2)}\n`);
});
