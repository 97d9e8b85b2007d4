/** Hearing a song again in the browser: the same as on the server, and better once something is checked. */
import { expect, type Page } from '@playwright/test';
import { analysisSchema, openSongSchema, songSummarySchema, type OpenSong } from '@wild-needle/contract';
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

/** The same song, in which two strums of the first riff were misheard by a semitone in every pass, and written so. */
async function mishear(page: Page, url: string): Promise<OpenSong> {
  const get = async (path: string): Promise<unknown> => (await page.request.get(url + path)).json();
  const [summary] = songSummarySchema.array().parse(await get('/api/songs'));
  const song = openSongSchema.parse(await get(`/api/songs/${summary.id}`));
  const { document, id, revision } = song;
  const [riff] = document.riffs;
  const wrong = riff.strums.filter((s) => s.frets.length > 0).slice(1, 3);
  const ids = new Set(wrong.map((s) => s.id));
  const misheard = riff.strums.map((s) => ({
    ...s,
    trust: 'heard' as const,
    frets: ids.has(s.id) ? s.frets.map((f) => ({ ...f, fret: f.fret + 1 })) : s.frets,
  }));
  await page.request.put(`${url}/api/songs/${id}/document`, {
    data: {
      baseRevision: revision,
      document: { ...document, riffs: document.riffs.with(0, { ...riff, strums: misheard }) },
    },
  });
  const { beatsS, bars } = document.grid;
  const timeOf = (beat: number): number => {
    const before = Math.floor(beat);
    return beatsS[before] + (beat - before) * (beatsS[before + 1] - beatsS[before]);
  };
  const TICKS_PER_BEAT = 960;
  const times = document.sections.flatMap(({ startBar, passes }) =>
    Array.from({ length: passes }, (_, pass) => bars[startBar + pass * riff.bars.length].beat).flatMap(
      (startBeat) => wrong.map((s) => timeOf(startBeat + s.startTicks / TICKS_PER_BEAT)),
    ),
  );
  await page.route('**/analysis', async (route) => {
    const analysis = analysisSchema.parse(await (await route.fetch()).json());
    const strums = analysis.strums.map((s) =>
      times.some((t) => Math.abs(t - s.timeS) < 0.1) ? { ...s, midi: s.midi.map((note) => note + 1) } : s,
    );
    await route.fulfill({ json: { ...analysis, strums } });
  });
  return song;
}

test('says strum by strum what it hears otherwise: left, taken, undone, and there after a reload', async ({
  riffApp,
  page,
}) => {
  const { document } = await mishear(page, riffApp.url);
  const shelf = new Shelf(page);
  await shelf.open(riffApp.url);
  const riffs = await shelf.openSong('Four bar riff');
  await riffs.ready();
  const strip = page.getByRole('group', { name: 'Measured again' });
  await expect(strip).toBeHidden();
  const misheard = await riffs.strums();

  await page.keyboard.press('g');
  await expect(strip).toContainText('Take all 2', { timeout: 60_000 });
  await expect(strip).toContainText(/Bar 1, .*, written /);
  await page.reload();
  await riffs.ready();
  await expect(strip).toContainText('Take all 2');

  await page.keyboard.press('Alt+n');
  await expect(strip).not.toContainText('Take all');
  await page.keyboard.press('Alt+y');
  await expect(strip).toBeHidden();
  const [first, second] = document.riffs[0].strums.filter((s) => s.frets.length > 0).slice(1, 3);
  const strums = async (): Promise<OpenSong['document']['riffs'][0]['strums']> => {
    const songId = new URL(page.url()).pathname.split('/')[2];
    const answer = await page.request.get(`${riffApp.url}/api/songs/${songId}`);
    return openSongSchema.parse(await answer.json()).document.riffs[0].strums;
  };
  await expect
    .poll(async () => (await strums()).find((s) => s.id === second.id))
    .toMatchObject({ frets: second.frets, trust: 'checked' });
  expect((await strums()).find((s) => s.id === first.id)?.frets).not.toEqual(first.frets);

  await page.keyboard.press('Control+z');
  await expect(strip).toBeVisible();
  expect(await riffs.strums()).toEqual(misheard);
  await expect(riffs.saved).toBeVisible();
  await page.reload();
  await riffs.ready();
  await expect(strip).toBeVisible();
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
