/**
 * `npm run bench:screen -- practising`: a song of four minutes on the Practice screen, its whole length played with the simulated player on. How
 * evenly it draws, and the longest task of the page's thread. What judging costs: `npm run bench:speed`. Written to `bench/screen/practising.json`.
 */
import { writeFileSync } from 'node:fs';
import { expect, type Browser, type Page } from '@playwright/test';
import { z } from 'zod';
import { createAnswerSchema, ROUTES, songDocumentSchema } from '@wild-needle/contract';
import { test } from '../../e2e/support/app';
import { longSong } from './four-minutes';
import { frameGaps } from './frames';

const traceSchema = z.object({
  traceEvents: z.array(
    z.looseObject({
      name: z.string(),
      dur: z.number().optional(),
      pid: z.number(),
      tid: z.number(),
      args: z.looseObject({ name: z.string().optional() }).optional(),
    }),
  ),
});

/** Milliseconds of every task of the page's own thread while `act` is done. */
async function tasksMs(browser: Browser, page: Page, act: () => Promise<unknown>): Promise<number[]> {
  await browser.startTracing(page, {
    categories: ['disabled-by-default-devtools.timeline', 'toplevel', '__metadata'],
  });
  await act();
  const trace = await browser.stopTracing();
  const { traceEvents } = traceSchema.parse(JSON.parse(trace.toString('utf8')));
  const main = traceEvents
    .filter((e) => e.name === 'thread_name' && e.args?.name === 'CrRendererMain')
    .map((e) => `${e.pid}/${e.tid}`);
  return traceEvents
    .filter((e) => e.name === 'RunTask' && main.includes(`${e.pid}/${e.tid}`))
    .map((e) => (e.dur ?? 0) / 1000);
}

const quantile = (values: readonly number[], share: number): number =>
  [...values].sort((a, b) => a - b)[Math.floor(share * (values.length - 1))];
const rounded = (value: number, digits = 1): number => Number(value.toFixed(digits));

test('a long song is practised', async ({ app, page, browser }) => {
  test.setTimeout(180_000);
  const document = songDocumentSchema.parse({ ...longSong().document, recordings: [] });
  const answer = await fetch(`${app.url}${ROUTES.createSong.path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ document }),
  });
  const { songId } = createAnswerSchema.parse(await answer.json());
  await page.goto(`${app.url}/songs/${songId}/practice`);
  await expect(page.getByRole('option', { selected: true })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeEnabled();
  await page.getByRole('button', { name: 'Simulated player' }).click();
  await page.keyboard.press(' ');
  await expect(page.locator('wn-heard-panel')).toContainText('strums so far', { timeout: 30_000 });
  let gaps: number[] = [];
  const tasks = await tasksMs(browser, page, async () => {
    gaps = await frameGaps(page, () => Promise.resolve());
  });
  await page.keyboard.press(' ');
  const results = {
    command: 'npm run bench:screen -- practising',
    date: new Date().toISOString().slice(0, 10),
    frames: {
      goal: { medianMs: 16.7 },
      medianMs: rounded(quantile(gaps, 0.5)),
      p95Ms: rounded(quantile(gaps, 0.95)),
      longestMs: rounded(Math.max(...gaps)),
    },
    tasks: {
      goal: { longestMs: 16 },
      longestMs: rounded(Math.max(...tasks)),
      p99Ms: rounded(quantile(tasks, 0.99)),
      over16: tasks.filter((ms) => ms > 16).length,
      count: tasks.length,
    },
  };
  writeFileSync('bench/screen/practising.json', `${JSON.stringify(results, null, 2)}\n`);
  expect(tasks.length).toBeGreaterThan(100);
});
