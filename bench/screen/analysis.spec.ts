/**
 * `npm run bench:screen`: the whole analysis of four minutes in the worker of the browser against the same in Node, and
 * in Node what thirty minutes take against four. Written to `bench/screen/analysis.json`.
 */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from '@playwright/test';
import * as z from 'zod';
import { renderDemoSong } from '../../demo/seed/render';
import { test } from '../../e2e/support/app';
import { Shelf } from '../../e2e/support/pages';
import { longSong } from './four-minutes';

const measuredSchema = z.object({ lengthS: z.number(), seconds: z.number(), peakMb: z.number() });

function inNode(path: string): z.infer<typeof measuredSchema> {
  const out = execFileSync(process.execPath, ['--import', 'tsx', 'bench/speed/one-analysis.ts', path]);
  return measuredSchema.parse(JSON.parse(out.toString()));
}

const round = (value: number): number => Math.round(100 * value) / 100;

test('the analysis in the browser and in Node', async ({ app, page }) => {
  test.setTimeout(600_000);
  const folder = mkdtempSync(join(tmpdir(), 'wn-bench-'));
  const four = join(folder, 'four.flac');
  const half = join(folder, 'half.flac');
  writeFileSync(four, await renderDemoSong(longSong()));
  execFileSync('ffmpeg', ['-v', 'error', '-stream_loop', '-1', '-i', four, '-t', '1790', half]);

  await page.addInitScript(() => {
    const Original = window.Worker;
    window.Worker = class extends Original {
      override postMessage(message: unknown, ...rest: never[]): void {
        const start = performance.now();
        this.addEventListener('message', ({ data }: MessageEvent<{ kind?: string; analysis?: unknown }>) => {
          if (data.kind === 'done' && data.analysis) {
            Object.assign(window, { analysisS: (performance.now() - start) / 1000 });
          }
        });
        super.postMessage(message, ...rest);
      }
    };
  });
  const shelf = new Shelf(page);
  await shelf.open(app.url);
  await shelf.choose(four);
  await expect(shelf.song('four').getByText(/next: as it was heard/)).toBeVisible({ timeout: 120_000 });
  const riffs = await shelf.openSong('four');
  await riffs.ready();
  await page.keyboard.press('g');
  await expect(page.getByText(/heard anew|Heard the same/i)).toBeVisible({ timeout: 120_000 });
  const browserS = await page.evaluate(() => (window as unknown as { analysisS: number }).analysisS);

  const [node, long] = [inNode(four), inNode(half)];
  const results = {
    command: 'npm run bench:screen',
    date: new Date().toISOString().slice(0, 10),
    timesRealTimeInNode: round(node.lengthS / node.seconds),
    timesRealTimeInBrowser: round(node.lengthS / browserS),
    browserAgainstNode: round(browserS / node.seconds),
    thirtyMinutesAgainstFourPerSecond: round(long.seconds / long.lengthS / (node.seconds / node.lengthS)),
    processMbFourMinutes: node.peakMb,
    processMbThirtyMinutes: long.peakMb,
  };
  writeFileSync(join(import.meta.dirname, 'analysis.json'), `${JSON.stringify(results, null, 2)}\n`);
  process.stdout.write(`${JSON.stringify(results, null, 2)}\n`);
});
