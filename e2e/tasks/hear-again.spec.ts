/** Hearing a song again in the browser: the same as on the server, and better once something is checked. */
import { expect, type Page } from '@playwright/test';
import { analysisSchema, openSongSchema, songSummarySchema } from '@wild-needle/contract';
import { test } from '../support/app';
import { Shelf } from '../support/pages';

/** Keeps what the analysis worker of the page answers. */
async function keepAnswers(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const Original = window.Worker;
    window.Worker = class extends Original {
      constructor(...args: ConstructorParameters<typeof Original>) {
        super(...args);
        this.addEventListener('message', ({ data }: MessageEvent<{ kind?: string; analysis?: unknown }>) => {
          if (data.kind === 'done') Object.assign(window, { heard: data.analysis });
        });
      }
    };
  });
}

test('hears the same in the browser as on the server, and takes the part of it that is looped', async ({
  riffApp,
  page,
}) => {
  await keepAnswers(page);
  const shelf = new Shelf(page);
  await shelf.open(riffApp.url);
  const riffs = await shelf.openSong('Four bar riff');
  await riffs.ready();

  await page.keyboard.press('g');
  await expect(page.getByText('Heard the same in the song')).toBeVisible({ timeout: 60_000 });

  const songId = new URL(page.url()).pathname.split('/')[2];
  const get = async (path: string): Promise<unknown> => (await page.request.get(riffApp.url + path)).json();
  const { recording } = openSongSchema.parse(await get(`/api/songs/${songId}`));
  const server = analysisSchema.parse(await get(`/api/recordings/${recording?.id}/analysis`));
  const browser = analysisSchema.parse(
    await page.evaluate(() => (window as unknown as { heard: unknown }).heard),
  );
  expect(browser.strums.length).toBe(server.strums.length);
  server.strums.forEach((strum, k) => {
    expect(Math.abs(browser.strums[k].timeS - strum.timeS)).toBeLessThan(0.001);
    expect(browser.strums[k].midi).toEqual(strum.midi);
    expect(browser.strums[k].palmMuted).toBe(strum.palmMuted);
  });

  await page.getByRole('button', { name: 'Loop pass 2' }).click();
  await page.getByRole('button', { name: 'Measure the loop again' }).click();
  await expect(page.getByText('in the loop')).toBeVisible({ timeout: 30_000 });
});

test('can be cancelled', async ({ demoApp, page }) => {
  const shelf = new Shelf(page);
  await shelf.open(demoApp.url);
  const [song] = songSummarySchema
    .array()
    .parse(await (await page.request.get(`${demoApp.url}/api/songs`)).json());
  const riffs = await shelf.openSong(song.title);
  await riffs.ready();
  await page.getByRole('button', { name: 'Measure again' }).click();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByRole('button', { name: 'Measure again' })).toBeEnabled();
  await expect(page.getByText(/heard anew|Heard the same/)).toHaveCount(0);
});
