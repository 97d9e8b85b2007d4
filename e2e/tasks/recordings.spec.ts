/** A song with two recordings: the other one is heard at the place of the first, and can become what the tab is written to. */
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, type Page } from '@playwright/test';
import { openSongSchema, type OpenSong } from '@wild-needle/contract';
import { test } from '../support/app';
import { Riffs, Shelf } from '../support/pages';

/** Later, faster, and the same music. */
const LATER_S = 2.5;
const FASTER = 1.06;

async function openOf(page: Page, url: string, id: string): Promise<OpenSong> {
  return openSongSchema.parse(await (await page.request.get(`${url}/api/songs/${id}`)).json());
}

/** As a file that is dropped on the open song. */
async function drop(page: Page, path: string, name: string): Promise<void> {
  const files = await page.evaluateHandle(
    ([base64, fileName]) => {
      const transfer = new DataTransfer();
      const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
      transfer.items.add(new File([bytes], fileName));
      return transfer;
    },
    [readFileSync(path).toString('base64'), name] as const,
  );
  await page.dispatchEvent('wn-song-frame', 'drop', { dataTransfer: files });
}

test('a file dropped on an open song is another recording of it, heard at the same place, and the reference if wanted', async ({
  demoApp,
  page,
}) => {
  test.setTimeout(120_000);
  const shelf = new Shelf(page);
  await shelf.open(demoApp.url);
  await shelf.openSong('Salt on the Wire');
  const riffs = new Riffs(page);
  await riffs.ready();
  const id = /songs\/([\w-]+)\//.exec(page.url())?.[1] ?? '';
  const before = await openOf(page, demoApp.url, id);
  const folder = mkdtempSync(join(tmpdir(), 'wn-live-'));
  const audio = await page.request.get(`${demoApp.url}/api/recordings/${before.recording?.id ?? ''}/audio`);
  writeFileSync(join(folder, 'album'), await audio.body());
  const filter = `atempo=${FASTER},adelay=${1000 * LATER_S}:all=1`;
  const { status } = spawnSync('ffmpeg', [
    '-v',
    'error',
    '-i',
    join(folder, 'album'),
    '-af',
    filter,
    join(folder, 'live.flac'),
  ]);
  expect(status).toBe(0);

  await drop(page, join(folder, 'live.flac'), 'live at the pier.flac');
  await expect(
    page.getByText('live at the pier.flac: another recording of this song, or a new one?'),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Of this song' }).click();
  const pill = page.getByRole('button', { name: /^Recording: / });
  await expect(pill).toContainText('1 of 2', { timeout: 30_000 });

  // The needle stays where it is, and the loop.
  await page.keyboard.press('Control+.');
  await expect.poll(() => riffs.clock()).toBeCloseTo(5, 0);
  await page.keyboard.press('Alt+r');
  await expect(pill).toContainText('live at the pier has the same parts', { timeout: 60_000 });
  await riffs.ready();
  expect(await riffs.clock()).toBeCloseTo(5, 0);
  await page.keyboard.press('Alt+r');
  await expect(pill).toContainText('1 of 2');
  await page.keyboard.press('Alt+r');
  await expect(pill).toContainText('live at the pier has the same parts', { timeout: 30_000 });

  // The tab is written to it: its beats are where the band plays them there; undo takes it back.
  await pill.click();
  await page.getByRole('menuitem', { name: 'Write the tab to live at the pier' }).click();
  await expect(riffs.saved).toBeVisible();
  await expect
    .poll(async () => (await openOf(page, demoApp.url, id)).recording?.fileName)
    .toBe('live at the pier.flac');
  const after = await openOf(page, demoApp.url, id);
  const expected = before.document.grid.beatsS.map((t) => LATER_S + t / FASTER);
  const off = after.document.grid.beatsS.map((t, n) => Math.abs(t - expected[n])).sort((a, b) => a - b);
  expect(off[Math.floor(off.length / 2)]).toBeLessThan(0.02);
  expect(after.document.riffs).toEqual(before.document.riffs);
  await expect(page.getByRole('menu')).toBeHidden();
  await riffs.ready();
  await page.keyboard.press('Control+z');
  await expect
    .poll(async () => (await openOf(page, demoApp.url, id)).recording?.id)
    .toBe(before.recording?.id);

  // Back on the shelf it has two; the other one can go.
  await pill.click();
  await page
    .getByRole('menuitem', { name: /live at the pier/ })
    .first()
    .click();
  await expect(pill).toContainText('live at the pier has the same parts', { timeout: 30_000 });
  for (const _ of [1, 2]) {
    await pill.click();
    await page.getByRole('menuitem', { name: 'Remove live at the pier from the song' }).click();
  }
  await expect(pill).toBeHidden();
});
