/**
 * `npm run bench:screen -- shelf`: a thousand songs on the shelf: what a search takes from the question to the answer, and how evenly the page
 * draws while it is scrolled. Written to `bench/screen/shelf.json`.
 */
import { writeFileSync } from 'node:fs';
import { expect } from '@playwright/test';
import type { z } from 'zod';
import { ROUTES, type songDocumentSchema } from '@wild-needle/contract';
import { test } from '../../e2e/support/app';
import { frameGaps } from './frames';

const SONGS = 1000;
const TIMES = 9;
const WORDS = [
  'Gravel',
  'Anvil',
  'Late',
  'Kerosene',
  'Salt',
  'Nine',
  'Choir',
  'Weather',
  'Bus',
  'Picnic',
  'Wire',
];
const SEARCHES = ['kerosene', 'drop d', 'A5 C5', 'salt committee', 'verse'];

/** Three riffs of two bars, eight sections. */
function song(n: number): z.input<typeof songDocumentSchema> {
  const meter = { beats: 4, unit: 4 } as const;
  return {
    schema: 'wild-needle/song@2',
    ...{ key: null, referenceOffsetCents: 0, recordings: [] },
    title: `${WORDS[n % WORDS.length]} ${WORDS[(7 * n + 3) % WORDS.length]} ${n}`,
    artist: `${WORDS[(5 * n) % WORDS.length]} Committee`,
    tuning: {
      name: n % 3 === 0 ? 'drop-d' : 'standard',
      stringsMidi: [n % 3 === 0 ? 38 : 40, 45, 50, 55, 59, 64],
      capo: 0,
    },
    grid: {
      beatsS: Array.from({ length: 129 }, (_, i) => i / 2),
      bars: Array.from({ length: 32 }, (_, i) => ({ beat: 4 * i, ...meter })),
    },
    riffs: [0, 1, 2].map((r) => ({
      ...{ id: `r${r}`, letter: 'ABC'[r], name: `Riff ${r}`, bars: [meter, meter] },
      strums: Array.from({ length: 16 }, (_, i) => ({
        ...{ id: `s${r}-${i}`, startTicks: 480 * i, durationTicks: 480, palmMute: false, dead: false },
        frets: [
          { string: 6, fret: (i * ((n % 5) + 1) + r) % 12 },
          { string: 5, fret: ((i * ((n % 5) + 1) + r) % 12) + 2 },
        ],
        trust: i % 2 === 0 ? ('heard' as const) : ('checked' as const),
      })),
    })),
    sections: Array.from({ length: 8 }, (_, i) => ({
      ...{ id: `x${i}`, name: `Verse ${i}`, riffId: `r${i % 3}`, startBar: 4 * i, passes: 2, transpose: 0 },
    })),
  };
}

const median = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1];
const rounded = (value: number): number => Number(value.toFixed(1));

test('a thousand songs', async ({ app, page }) => {
  test.setTimeout(240_000);
  for (let n = 0; n < SONGS; n++) {
    const answer = await fetch(`${app.url}${ROUTES.createSong.path}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ document: song(n) }),
    });
    expect(answer.status).toBe(201);
  }
  const searches: Record<string, { found: number; medianMs: number }> = {};
  for (const search of SEARCHES) {
    const took: number[] = [];
    let found = 0;
    for (let i = 0; i < TIMES; i++) {
      const from = performance.now();
      const answer = await fetch(`${app.url}${ROUTES.listSongs.path}?search=${encodeURIComponent(search)}`);
      found = ((await answer.json()) as unknown[]).length;
      took.push(performance.now() - from);
    }
    searches[search] = { found, medianMs: rounded(median(took)) };
  }
  await page.goto(`${app.url}/songs`);
  const rows = page.getByRole('list', { name: 'Songs' }).getByRole('listitem');
  for (let listed = 200; listed < SONGS; listed += 200) {
    await expect(rows).toHaveCount(listed);
    await page.getByRole('button', { name: 'More songs' }).click();
  }
  await expect(rows).toHaveCount(SONGS);
  await page.mouse.move(500, 500);
  const gaps = await frameGaps(page, async () => {
    for (let i = 0; i < 80; i++) await page.mouse.wheel(0, 600);
  });
  const sorted = [...gaps].sort((a, b) => a - b);
  writeFileSync(
    'bench/screen/shelf.json',
    `${JSON.stringify(
      {
        command: 'npm run bench:screen -- shelf',
        date: new Date().toISOString().slice(0, 10),
        songs: SONGS,
        searches: { goalMs: 50, ...searches },
        frames: {
          goal: { medianMs: 16.7 },
          medianMs: rounded(median(gaps)),
          p95Ms: rounded(sorted[Math.floor(0.95 * sorted.length)]),
          longestMs: rounded(sorted[sorted.length - 1]),
        },
      },
      null,
      2,
    )}\n`,
  );
});
