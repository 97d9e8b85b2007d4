/** The shelf: what is there is found, has its names, is asked for, and stays until it is removed on purpose. */
import { createHash } from 'node:crypto';
import { mkdirSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { request as httpRequest } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from '@playwright/test';
import {
  importAnswerSchema,
  ROUTES,
  songSummarySchema,
  type songDocumentSchema,
} from '@wild-needle/contract';
import type { z } from 'zod';
import { test } from '../support/app';
import { Riffs, Shelf } from '../support/pages';
import { toneWav } from '../support/tone-wav';

function emptySong(title: string): z.input<typeof songDocumentSchema> {
  return {
    schema: 'wild-needle/song@2',
    ...{ title, artist: '', key: null, referenceOffsetCents: 0, recordings: [] },
    tuning: { name: 'Standard', stringsMidi: [40, 45, 50, 55, 59, 64], capo: 0 },
    grid: { beatsS: [], bars: [] },
    riffs: [],
    sections: [],
  };
}

/** Songs without anything in them. */
async function createSongs(url: string, titles: readonly string[]): Promise<readonly string[]> {
  for (const title of titles) {
    await fetch(`${url}${ROUTES.createSong.path}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ document: emptySong(title) }),
    });
  }
  return titles;
}

test('asks before a song is removed, and forgets the question on Escape and after a moment', async ({
  demoApp,
  page,
}) => {
  const shelf = new Shelf(page);
  await shelf.open(demoApp.url);
  const song = shelf.song('Salt on the Wire');
  const ask = song.getByRole('button', { name: 'Remove Salt on the Wire' });
  const confirm = song.getByRole('button', { name: 'Remove it' });
  await ask.click();
  await expect(confirm).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(ask).toBeVisible();
  await expect(confirm).toBeHidden();
  await ask.click();
  await expect(confirm).toBeVisible();
  // By itself, in the time that is seen to pass.
  await expect(ask).toBeVisible();
  await page.reload();
  await expect(song).toBeVisible();
});

test('a song that was removed waits for a month and can be brought back', async ({ app, page }) => {
  const shelf = new Shelf(page);
  await shelf.open(app.url);
  const [name] = await createSongs(app.url, ['Kerosene Picnic']);
  await page.reload();
  await shelf
    .song(name)
    .getByRole('button', { name: `Remove ${name}` })
    .click();
  await shelf.song(name).getByRole('button', { name: 'Remove it' }).click();
  await expect(shelf.song(name)).toHaveCount(0);
  await page.getByText('Removed: 1 song').click();
  await page.locator('wn-removed-songs').getByRole('button', { name: 'Bring back' }).click();
  await expect(shelf.song(name)).toBeVisible();
  await expect(page.getByText(/^Removed:/)).toBeHidden();
});

test('a song gets its title, artist and tags by keys, and is found by them', async ({ app, page }) => {
  await createSongs(app.url, ['Take 7', 'Anvil Weather']);
  const shelf = new Shelf(page);
  await shelf.open(app.url);
  await expect(shelf.song('Take 7')).toBeVisible();
  await page.keyboard.press('s');
  await page.keyboard.press('s');
  // By title: the second one.
  await expect(page.getByRole('radio', { name: /^Title/ })).toBeChecked();
  await expect(page.getByRole('list', { name: 'Songs' }).getByRole('listitem').nth(1)).toContainText(
    'Take 7',
  );
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('t');
  await expect(page.getByRole('textbox', { name: 'Title' })).toBeFocused();
  await page.keyboard.type('Gravel Choir');
  await page.keyboard.press('Tab');
  await page.keyboard.type('Ostrich Committee');
  await page.keyboard.press('Tab');
  await page.keyboard.type('lesson, loud');
  await page.keyboard.press('Enter');
  await expect(shelf.song('Gravel Choir')).toContainText('Ostrich Committee');
  await expect(shelf.song('Gravel Choir')).toContainText('loud');

  await page.keyboard.press('/');
  await page.keyboard.type('ostrich lesson');
  await expect(shelf.song('Anvil Weather')).toHaveCount(0);
  await expect(shelf.song('Gravel Choir')).toBeVisible();
  await page.keyboard.type(' nobody');
  await expect(page.getByText('No song has that. Esc shows all.')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(shelf.song('Anvil Weather')).toBeVisible();
});

test('what somebody asks for stands by its day, puts its song first, and is ticked off', async ({
  app,
  page,
}) => {
  await createSongs(app.url, ['Late Bus Home', 'Anvil Weather']);
  const shelf = new Shelf(page);
  await shelf.open(app.url);
  const asked = page.getByRole('region', { name: 'Asked for' });
  await expect(asked.getByText('Nobody waits for anything.')).toBeVisible();
  const ask = async (initials: string, song: string, day: string): Promise<void> => {
    await page.keyboard.press('i');
    await asked.getByRole('textbox', { name: 'Initials' }).fill(initials);
    await asked.getByRole('combobox', { name: 'Song' }).fill(song);
    if (day) await asked.getByLabel('Until').fill(day);
    await asked.getByRole('button', { name: 'Keep' }).click();
    await expect(asked.getByRole('listitem').filter({ hasText: initials })).toBeVisible();
  };
  await ask('D. K.', 'Late Bus Home', '');
  await ask('M. O.', 'Anvil Weather', '2030-01-05');
  // A song that is wanted and not there yet stands on the shelf too.
  await ask('S. A.', 'Salt Road', '2029-12-01');
  await expect(asked.getByRole('listitem')).toContainText(['Salt Road', 'Anvil Weather', 'Late Bus Home']);
  await expect(shelf.song('Salt Road')).toContainText('No recording yet');
  await page.getByRole('radio', { name: 'Due first' }).click();
  await expect(page.getByRole('list', { name: 'Songs' }).getByRole('listitem').first()).toContainText(
    'Salt Road',
  );
  await asked.getByRole('checkbox', { name: 'Done: Salt Road for S. A.' }).check();
  await expect(asked.getByRole('listitem').last()).toContainText('Salt Road');
  await expect(page.getByRole('list', { name: 'Songs' }).getByRole('listitem').first()).toContainText(
    'Anvil Weather',
  );
  await page.reload();
  await expect(asked.getByRole('listitem').last()).toContainText('done');
});

test('what is asked for names a part and a version, and opens there', async ({ demoApp, page }) => {
  const shelf = new Shelf(page);
  await shelf.open(demoApp.url);
  const asked = page.getByRole('region', { name: 'Asked for' });
  await page.keyboard.press('i');
  await asked.getByRole('textbox', { name: 'Initials' }).fill('L. B.');
  await asked.getByRole('combobox', { name: 'Song' }).fill('salt on the wire');
  const part = asked.getByRole('combobox', { name: 'Which part' });
  await part.focus();
  const name = (await part.locator('option').last().innerText()).trim();
  await part.selectOption(name);
  await asked.getByRole('combobox', { name: 'In which version' }).selectOption('two strings');
  await asked.getByRole('button', { name: 'Keep' }).click();
  const row = asked.getByRole('listitem').filter({ hasText: 'L. B.' });
  await expect(row).toContainText(`${name}, two strings`);
  await row.getByRole('button', { name: /Salt on the Wire/ }).click();
  await expect(page.getByRole('radio', { name: /^Two strings/ })).toBeChecked();
  // The needle lies on the part: its place is where the last part begins.
  await expect.poll(() => new Riffs(page).clock()).toBeGreaterThan(10);
  await expect(page.locator('wn-header').getByText('Saved', { exact: true })).toBeVisible();
});

test('a part can be asked for by who names the song before the shelf has been read', async ({
  demoApp,
  page,
}) => {
  let read = (): void => undefined;
  const waits = new Promise<void>((resolve) => (read = resolve));
  await page.route(
    ({ pathname }) => pathname === ROUTES.listSongs.path,
    async (route) => {
      await waits;
      await route.continue();
    },
  );
  await page.goto(demoApp.url);
  const asked = page.getByRole('region', { name: 'Asked for' });
  await asked.getByRole('button', { name: 'Add' }).click();
  await asked.getByRole('combobox', { name: 'Song' }).fill('salt on the wire');
  await expect(asked.getByRole('combobox', { name: 'Which part' })).toHaveCount(0);
  read();
  await expect(asked.getByRole('combobox', { name: 'Which part' })).toBeVisible();
});

test('a folder that is dropped brings its recordings, one after the other, and leaves the rest', async ({
  app,
  page,
}) => {
  const folder = join(mkdtempSync(join(tmpdir(), 'wn-folder-')), 'Rehearsal');
  mkdirSync(join(folder, 'june'), { recursive: true });
  writeFileSync(join(folder, 'cover.jpg'), 'no sound');
  writeFileSync(join(folder, 'gravel lid.wav'), toneWav([220], 4));
  writeFileSync(join(folder, 'june', 'tin weather.wav'), toneWav([330], 4));
  const empty = join(mkdtempSync(join(tmpdir(), 'wn-folder-')), 'Pictures');
  mkdirSync(empty);
  const shelf = new Shelf(page);
  await shelf.open(app.url);
  const { x, y } = (await page.locator('.sleeve').boundingBox())!;
  const devTools = await page.context().newCDPSession(page);
  const drop = async (path: string): Promise<void> => {
    const data = { items: [], files: [path], dragOperationsMask: 1 };
    for (const type of ['dragEnter', 'dragOver', 'drop'] as const) {
      await devTools.send('Input.dispatchDragEvent', { type, x: x + 20, y: y + 20, data });
    }
  };
  await drop(empty);
  await expect(page.getByText(/^No recording is in what was dropped/)).toBeVisible();
  await drop(folder);
  await expect(shelf.song('Gravel lid')).toBeVisible({ timeout: 30_000 });
  await expect(shelf.song('Tin weather')).toBeVisible({ timeout: 30_000 });
  await expect(page.getByText(/^No recording is in what was dropped/)).toBeHidden();
  await expect(page.getByText('cover.jpg')).toBeHidden();
});

/** Six recordings of half a minute, of many channels so that a backup of them takes a moment, and three who ask for something. */
async function fillShelf(url: string): Promise<void> {
  const titles = ['Gravel lid', 'Tin weather', 'Late bus', 'Anvil hymn', 'Low pier', 'Salt road'];
  const send = (path: string, method: string, body: unknown): Promise<Response> =>
    fetch(`${url}${path}`, {
      method,
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
  const ids: string[] = [];
  for (const [n, title] of titles.entries()) {
    const bytes = toneWav(
      Array.from({ length: 8 }, (_, c) => 110 * (1 + n / 6) * (1 + c / 8)),
      30,
    );
    const answer = await fetch(
      `${url}${ROUTES.importRecording.path}?fileName=${encodeURIComponent(title)}.wav`,
      { method: 'POST', body: new Uint8Array(bytes) },
    );
    ids.push(importAnswerSchema.parse(await answer.json()).songId);
  }
  for (const [n, initials] of ['R. V.', 'M. O.', 'S. A.'].entries()) {
    await send(`/api/requests/${crypto.randomUUID()}`, 'PUT', {
      ...{ songId: ids[2 * n], initials, wanted: 'the fill', section: '', format: 'sheet' },
      ...{ version: 'two-strings', dueOn: `2030-01-0${n + 1}`, isDone: n === 1 },
    });
  }
  // The analyses end before the backup is compared.
  for (let isBusy = true; isBusy;) {
    const songs = songSummarySchema.array().parse(await (await fetch(`${url}/api/songs`)).json());
    isBusy = songs.some(({ job }) => job?.status === 'queued' || job?.status === 'running');
    await new Promise((resolve) => setTimeout(resolve, 300));
  }
}

/** All that a shelf holds, its recordings to the byte. */
async function everythingOf(url: string): Promise<object> {
  const ask = async (path: string): Promise<unknown> => (await fetch(`${url}${path}`)).json();
  const songs = songSummarySchema.array().parse(await ask('/api/songs?sort=title'));
  const each = await Promise.all(
    songs.map(async ({ id, recordings }) => {
      const audio = await (await fetch(`${url}/api/recordings/${recordings[0].id}/audio`)).arrayBuffer();
      const sha256 = createHash('sha256').update(Buffer.from(audio)).digest('hex');
      return {
        song: await ask(`/api/songs/${id}`),
        sha256,
        versions: await ask(`/api/songs/${id}/versions`),
      };
    }),
  );
  return { songs, each, requests: await ask('/api/requests'), settings: await ask('/api/settings') };
}

test('six songs and three requests are taken away in one file and brought back to the byte, whatever is killed on the way', async ({
  app,
  ownApp,
  page,
}) => {
  test.setTimeout(400_000);
  await fillShelf(app.url);
  const shelf = new Shelf(page);
  await shelf.open(app.url);
  // From the look of the system to the light one and the dark one.
  for (const now of ['auto', 'light']) await page.getByRole('button', { name: `Look: ${now}` }).click();
  await expect
    .poll(async () => JSON.stringify(await (await fetch(`${app.url}/api/settings`)).json()))
    .toContain('"dark"');
  const downloading = page.waitForEvent('download');
  await page.keyboard.press('b');
  const download = await downloading;
  const folder = mkdtempSync(join(tmpdir(), 'wn-backup-'));
  const path = join(folder, 'all.zip');
  await download.saveAs(path);
  await expect(page.getByText(/Last backup: Today/)).toBeVisible({ timeout: 15_000 });

  // Half of it is brought, then the server is killed.
  const whole = readFileSync(path);
  await new Promise<void>((resolve) => {
    const upload = httpRequest(`${ownApp.url}/api/backup`, {
      method: 'POST',
      headers: { 'content-length': whole.length },
    });
    upload.on('error', () => undefined);
    upload.write(whole.subarray(0, whole.length / 2), () => {
      resolve();
    });
  });
  await ownApp.kill();
  await ownApp.restart();
  // In a browser that has no settings of its own.
  const other = await (await page.context().browser()!.newContext()).newPage();
  const bringBack = (file: string): Promise<void> =>
    other.locator('wn-backup-line input[type=file]').setInputFiles(file);
  await new Shelf(other).open(ownApp.url);
  await expect(other.getByText('Nothing is on the shelf yet')).toBeVisible();
  await bringBack(path);
  await expect(other.getByText('6 songs came back.')).toBeVisible({ timeout: 60_000 });
  expect(await everythingOf(ownApp.url)).toEqual(await everythingOf(app.url));
  await expect(other.locator('html')).toHaveAttribute('data-theme', 'dark');

  // A backup is under way, then the server is killed: what there is of it is told, and nothing has changed.
  const cut = join(folder, 'cut.zip');
  await new Promise<void>((resolve) => {
    const begun: Buffer[] = [];
    httpRequest(`${ownApp.url}/api/backup`, (answer) => {
      answer.on('error', () => undefined);
      answer.on('close', () => {
        writeFileSync(cut, Buffer.concat(begun));
        resolve();
      });
      answer.on('data', (part: Buffer) => {
        begun.push(part);
        if (begun.length === 1) void ownApp.kill();
      });
    }).end();
  });
  expect(readFileSync(cut).length).toBeLessThan(whole.length);
  await ownApp.restart();
  await bringBack(cut);
  await expect(other.getByRole('alert')).toContainText('This is no backup of Wild Needle');
  await bringBack(path);
  await expect(other.getByText(/^\s*6 were here already\.\s*$/)).toBeVisible({ timeout: 60_000 });
  expect(await everythingOf(ownApp.url)).toEqual(await everythingOf(app.url));
  await other.context().close();
});
