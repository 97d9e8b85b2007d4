/** The server is killed in the middle of an import and of an analysis: nothing is lost, nothing is left half done. */
import { randomBytes } from 'node:crypto';
import { mkdtempSync, readdirSync, readFileSync, statSync } from 'node:fs';
import { request as httpRequest } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from '@playwright/test';
import { test } from '../support/app';
import { renderRiff } from '../support/fluidsynth-riff';
import { Shelf } from '../support/pages';

/** Bytes of the imports under way that have reached the server's disk. */
function spooledBytes(): number {
  const folder = process.env['WN_TEST_DATA_DIR']!;
  return readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((path) => /(^|\/)spool-/.test(path))
    .reduce((sum, path) => sum + (statSync(join(folder, path), { throwIfNoEntry: false })?.size ?? 0), 0);
}

test('an import that is cut by a crash leaves nothing behind', async ({ ownApp, page }) => {
  const sent = new Promise<void>((resolve) => {
    const upload = httpRequest(`${ownApp.url}/api/recordings?fileName=half.wav`, {
      method: 'POST',
      headers: { 'content-length': 40_000_000 },
    });
    upload.on('error', () => undefined);
    // Half of it, then nothing more.
    upload.write(randomBytes(20_000_000), () => resolve());
  });
  await sent;
  await expect.poll(spooledBytes).toBeGreaterThan(10_000_000);
  await ownApp.kill();
  await ownApp.restart();
  const shelf = new Shelf(page);
  await shelf.open(ownApp.url);
  await expect(page.getByRole('listitem')).toHaveCount(0);
  expect(await (await page.request.get(`${ownApp.url}/api/songs`)).json()).toEqual([]);
});

test('an analysis that is cut by a crash is done after the restart', async ({ ownApp, page }) => {
  const recording = renderRiff(mkdtempSync(join(tmpdir(), 'wn-crash-')));
  const shelf = new Shelf(page);
  await shelf.open(ownApp.url);
  await shelf.choose(recording);
  await expect(shelf.song('Four bar riff').getByText(/Listening for|Naming/)).toBeVisible({
    timeout: 30_000,
  });
  await ownApp.kill();
  await ownApp.restart();
  await shelf.open(ownApp.url);
  await expect(shelf.song('Four bar riff').getByText(/next: as it was heard/)).toBeVisible({
    timeout: 60_000,
  });

  // The bytes are the file's own, whole and in part.
  const songs = (await (await page.request.get(`${ownApp.url}/api/songs`)).json()) as {
    job: { recordingId: string };
  }[];
  const audio = `${ownApp.url}/api/recordings/${songs[0].job.recordingId}/audio`;
  const original = readFileSync(recording);
  expect((await (await page.request.get(audio)).body()).equals(original)).toBe(true);
  const part = await page.request.get(audio, { headers: { Range: 'bytes=262000-262500' } });
  expect(part.status()).toBe(206);
  expect((await part.body()).equals(original.subarray(262000, 262501))).toBe(true);

  // The same file again is recognised, not stored.
  await shelf.choose(recording);
  await expect(page.getByText('This recording is on the shelf already.')).toBeVisible({ timeout: 30_000 });
  await expect(page.getByRole('listitem')).toHaveCount(1);
});

test('a cancelled analysis stops and can be asked for again', async ({ app, page }) => {
  const shelf = new Shelf(page);
  await shelf.open(app.url);
  await shelf.choose(renderRiff(mkdtempSync(join(tmpdir(), 'wn-cancel-'))));
  const song = shelf.song('Four bar riff');
  await song.getByRole('button', { name: 'Cancel' }).click({ timeout: 30_000 });
  await song.getByRole('button', { name: 'Listen again' }).click();
  await expect(song.getByText(/next: as it was heard/)).toBeVisible({ timeout: 60_000 });
});

test('what is no recording is refused in a sentence', async ({ app, page }) => {
  const shelf = new Shelf(page);
  await shelf.open(app.url);
  await shelf.choose({ name: 'letter.txt', mimeType: 'text/plain', buffer: Buffer.from('Dear band') });
  await expect(page.getByRole('alert')).toContainText('This file is not audio we can read');
  await expect(page.getByRole('alert')).toContainText('letter.txt');
  await expect(page.getByRole('listitem')).toHaveCount(0);
});
