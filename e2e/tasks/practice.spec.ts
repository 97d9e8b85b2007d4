/** Practising: the stair goes up on the seam, a slip is named at its strum, and the log knows it afterwards. */
import { expect, type Page } from '@playwright/test';
import { z } from 'zod';
import { createAnswerSchema, practiceRoundSchema, ROUTES, songDocumentSchema } from '@wild-needle/contract';
import { test, type App } from '../support/app';
import { withInput } from '../support/fake-input';
import { listenIn } from '../support/loudspeaker';

const QUARTER = 960;
const BEAT_S = 0.4;
const BARS = 8;

/** Four power chords in a bar, eight times; no recording. */
function song(title: string): z.input<typeof songDocumentSchema> {
  return {
    schema: 'wild-needle/song@2',
    ...{ title, artist: '', key: null, referenceOffsetCents: 0, recordings: [], guitar2: null },
    tuning: { name: 'Standard', stringsMidi: [40, 45, 50, 55, 59, 64], capo: 0 },
    grid: {
      beatsS: Array.from({ length: 4 * BARS + 1 }, (_, i) => i * BEAT_S),
      bars: Array.from({ length: BARS }, (_, i) => ({ beat: 4 * i, beats: 4, unit: 4 })),
    },
    riffs: [
      {
        ...{ id: 'r', letter: 'A', name: 'Ladder', bars: [{ beats: 4, unit: 4 }] },
        strums: [0, 3, 5, 7].map((fret, i) => ({
          ...{ id: `s${i}`, startTicks: i * QUARTER, durationTicks: QUARTER },
          frets: [
            { string: 6, fret },
            { string: 5, fret: fret + 2 },
          ],
          ...{ palmMute: false, dead: false, trust: 'checked' as const },
        })),
      },
    ],
    sections: [{ id: 'v', name: 'Verse', riffId: 'r', startBar: 0, passes: BARS, transpose: 0 }],
  };
}

async function bringIn(app: App, title: string): Promise<string> {
  const answer = await fetch(`${app.url}${ROUTES.createSong.path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ document: songDocumentSchema.parse(song(title)) }),
  });
  return createAnswerSchema.parse(await answer.json()).songId;
}

async function openPractice(app: App, page: Page, songId: string): Promise<void> {
  await page.goto(`${app.url}/songs/${songId}/practice`);
  await expect(page.getByRole('option', { name: /Ladder/, selected: true })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeEnabled();
}

/** Where clicks begin, s: louder than a fifth of the loudest, after silence. */
function clicksS(samples: Float32Array, rate: number): number[] {
  const floor = 0.2 * samples.reduce((most, x) => Math.max(most, Math.abs(x)), 0);
  const found: number[] = [];
  samples.forEach((x, n) => {
    if (Math.abs(x) > floor && n / rate - (found.at(-1) ?? -1) > 0.2) found.push(n / rate);
  });
  return found;
}

test('three clean rounds raise the step on the seam: the loudspeaker is faster from there on', async ({
  app,
  page,
}) => {
  const loudspeaker = await listenIn(page);
  await openPractice(app, page, await bringIn(app, 'Ladder song'));
  const stair = page.getByRole('slider', { name: 'Step of the speed stair' });
  await expect(stair).toHaveAttribute('aria-valuetext', 'Step 60 per cent, 0 of 3 clean');
  // The click alone: the music is off.
  await page.keyboard.press('m');
  await page.keyboard.press('n');
  await page.keyboard.press(' ');
  const deck = page.locator('wn-deck');
  await expect(deck).toContainText('round 2');
  await page.keyboard.press('Enter');
  await expect(stair).toHaveAttribute('aria-valuetext', 'Step 60 per cent, 1 of 3 clean');
  await expect(deck).toContainText('round 3');
  await page.keyboard.press('Enter');
  await expect(deck).toContainText('round 4');
  const recorded = loudspeaker.record(6);
  await page.keyboard.press('Enter');
  await expect(stair).toHaveAttribute('aria-valuetext', 'Step 65 per cent, 0 of 3 clean');
  await expect(page.getByTestId('speed')).toHaveText('65 %');
  const { samples, rate } = await recorded;
  const at = clicksS(samples, rate);
  const gaps = at.slice(1).map((t, i) => t - at[i]);
  const isAt = (gap: number, speed: number): boolean => Math.abs(gap - BEAT_S / speed) < 0.004;
  // A busy machine drops a piece of what is recorded here, though not of what is heard: such a gap says nothing.
  const told = gaps.filter((gap) => isAt(gap, 0.6) || isAt(gap, 0.65));
  const turn = told.findIndex((gap) => isAt(gap, 0.65));
  expect(gaps.length - told.length).toBeLessThanOrEqual(2);
  expect(turn).toBeGreaterThanOrEqual(2);
  expect(told.slice(turn).length).toBeGreaterThanOrEqual(2);
  expect(told.slice(turn).every((gap) => isAt(gap, 0.65))).toBe(true);
  await page.keyboard.press(' ');
});

test('a slip of the simulated player is named at its strum; log and plan know it after a reload', async ({
  app,
  page,
}) => {
  const songId = await bringIn(app, 'Slip song');
  await openPractice(app, page, songId);
  const row = page.getByRole('option', { name: /Ladder/ });
  await expect(row).toHaveAccessibleName(/due today, 0 of 150 beats a minute, hard in .*, last played never/);
  await page.getByRole('button', { name: 'Simulated player' }).click();
  await page.keyboard.press(' ');
  // The second of four strums is a fret too high, the fourth is left out.
  const panel = page.locator('wn-heard-panel');
  await expect(panel).toContainText('2 of 4', { timeout: 20_000 });
  await expect(panel).toContainText('Bar 1, 2: G5 is written, it sounded like G#5.');
  await expect(panel).toContainText('Bar 1, 4: B5 was missed.');
  await page.keyboard.press('Backspace');
  await expect(page.getByRole('status').filter({ hasText: 'Slip, round 1' })).toBeAttached();
  await page.keyboard.press(' ');

  const rounds = async (): Promise<z.infer<typeof practiceRoundSchema>[]> => {
    const answer = await fetch(`${app.url}${ROUTES.listPracticeRounds.path}?songId=${songId}`);
    return z.array(practiceRoundSchema).parse(await answer.json());
  };
  await expect.poll(async () => (await rounds()).at(0)?.answer).toBe('slip');
  const [kept] = await rounds();
  expect(kept).toMatchObject({ item: 'riff:r', percent: 60, isWhole: true, heard: { written: 4, right: 2 } });
  expect(Math.abs((kept.heard?.meanMs ?? 0) - 14)).toBeLessThan(8);

  await page.reload();
  await expect(row).toHaveAccessibleName(/last played today/);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'CSV' }).click();
  expect((await download).suggestedFilename()).toBe('slip-song-practice.csv');
});

test('an input of this computer is judged, and says at the first round how late the device is', async ({
  app,
}) => {
  const browser = await withInput(test.info());
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await openPractice(app, page, await bringIn(app, 'Input song'));
  const panel = page.locator('wn-heard-panel');
  await page.keyboard.press('h');
  await expect(panel).toContainText('Play along: the first round tells how late this device is.');
  await page.keyboard.press(' ');
  // It beeps once a second and plays no chords.
  await expect(panel).toContainText(/[0-2] of 4strums in round \d/, { timeout: 20_000 });
  await expect(panel).toContainText('was missed');
  await page.keyboard.press('h');
  await expect(panel).toContainText('without it you are the judge');
  await browser.close();
});

test('rounds that are played while the server is away are sent when it is back', async ({ ownApp, page }) => {
  const songId = await bringIn(ownApp, 'Away song');
  await openPractice(ownApp, page, songId);
  await ownApp.kill();
  await page.keyboard.press(' ');
  await expect(page.locator('wn-deck')).toContainText('round 2');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Not saved yet: the log keeps these rounds on this computer.')).toBeVisible();
  await page.keyboard.press(' ');
  await ownApp.restart();
  await page.reload();
  await expect(page.getByRole('option', { name: /Ladder.*last played today/ })).toBeVisible();
  await expect
    .poll(async (): Promise<unknown> =>
      (await fetch(`${ownApp.url}/api/practice-rounds?songId=${songId}`)).json(),
    )
    .toMatchObject([{ answer: 'clean', percent: 60 }]);
});

test('a pedal says clean, a step is taken by hand, and two strings are shown and sound', async ({
  app,
  page,
}) => {
  await openPractice(app, page, await bringIn(app, 'Pedal song'));
  await page.keyboard.press(':');
  const board = page.getByRole('complementary', { name: 'Foot pedals' });
  await board.getByRole('button', { name: 'Learn the pedal for: Practice: clean' }).click();
  await board.getByRole('button', { name: 'Switch 3' }).click();
  await expect(board.getByText('control 82')).toBeVisible();
  await page.keyboard.press(' ');
  await expect(page.locator('wn-deck')).toContainText('round 2');
  await board.getByRole('button', { name: 'Switch 3' }).click();
  const stair = page.getByRole('slider', { name: 'Step of the speed stair' });
  await expect(stair).toHaveAttribute('aria-valuetext', 'Step 60 per cent, 1 of 3 clean');
  await page.keyboard.press('Escape');
  // A step by the deck is a step of the stair.
  await page.keyboard.press('=');
  await expect(stair).toHaveAttribute('aria-valuetext', 'Step 65 per cent, 0 of 3 clean');
  await page.keyboard.press(' ');
  const line = page.locator('wn-tab-line').first();
  await expect(line.getByRole('img')).toHaveAccessibleName(/string 5/);
  await page.keyboard.press('.');
  await page.keyboard.press('.');
  await expect(line.getByRole('img')).not.toHaveAccessibleName(/string 5/);
  // Bars of the part by chance, and back.
  await page.keyboard.press('y');
  await expect(page.getByRole('button', { name: /^Bursts/ })).toBeVisible();
});
