/** `npm run screenshots`: one picture per main view, from the demo songs, for the README. */
import { randomUUID } from 'node:crypto';
import { openSongSchema, songSummarySchema } from '@wild-needle/contract';
import { test } from '../support/app';
import { Shelf, type Riffs } from '../support/pages';

const FOLDER = 'docs/screenshots';

/** The first verse, slowed and looped, the needle in its third pass. */
async function playVerse(riffs: Riffs): Promise<void> {
  const { page } = riffs;
  await riffs.ready();
  await page.getByRole('radio', { name: 'Riff B' }).click();
  for (let i = 0; i < 8; i++) await page.keyboard.press('-');
  await page.getByRole('button', { name: 'Loop pass 3' }).click();
  await page.keyboard.press('Space');
  await page.waitForTimeout(2600);
}

/** A tab with slips of the hand, as they are met: a chord of the chorus, one of the verse, a mute that was forgotten. */
async function writeWrong(url: string): Promise<void> {
  const [summary] = songSummarySchema
    .array()
    .parse(await (await fetch(`${url}/api/songs`)).json())
    .filter(({ title }) => title === 'Salt on the Wire');
  const { document, revision } = openSongSchema.parse(
    await (await fetch(`${url}/api/songs/${summary.id}`)).json(),
  );
  const [intro, verse, chorus, ...others] = document.riffs;
  const wrong = {
    ...document,
    riffs: [
      intro,
      {
        ...verse,
        strums: verse.strums.map((s, i) => (i === 1 ? { ...s, palmMute: !s.palmMute } : s)),
      },
      {
        ...chorus,
        strums: chorus.strums.map((s, i) =>
          i === 1 ? { ...s, frets: s.frets.map((f, k) => (k === 1 ? { ...f, fret: f.fret - 2 } : f)) } : s,
        ),
      },
      ...others,
    ],
  };
  await fetch(`${url}/api/songs/${summary.id}/document`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ baseRevision: revision, document: wrong }),
  });
}

/** Who waits for what, and how the songs are called together. */
async function askForSongs(url: string): Promise<void> {
  const songs = songSummarySchema.array().parse(await (await fetch(`${url}/api/songs?sort=title`)).json());
  const put = (path: string, body: unknown): Promise<Response> =>
    fetch(`${url}/api/${path}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
  const day = (days: number): string => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);
  const asked = [
    { initials: 'R. V.', wanted: 'bridge, with two strings', format: 'sheet', dueOn: day(1) },
    { initials: 'M. O.', wanted: 'verse only', format: null, dueOn: day(4) },
    { initials: 'D. K.', wanted: 'first day', format: null, dueOn: null },
  ] as const;
  for (const [n, song] of songs.entries()) {
    await put(`songs/${song.id}/tags`, { tags: [['lesson', 'loud'], ['set list'], ['slow']][n] });
    await put(`requests/${randomUUID()}`, { ...asked[n], songId: song.id, section: '', isDone: false });
    const time = { songId: song.id, step: 'riffs', at: new Date().toISOString() };
    await put(`work-times/${randomUUID()}`, { ...time, seconds: 540 });
  }
}

for (const colorScheme of ['light', 'dark'] as const) {
  test.describe(() => {
    test.use({ colorScheme });
    test(`the shelf, ${colorScheme}`, async ({ demoApp, page }) => {
      const shelf = new Shelf(page);
      await shelf.open(demoApp.url);
      await page
        .getByText(/next: as it was heard/)
        .nth(1)
        .waitFor({ timeout: 90_000 });
      if (colorScheme === 'light') await askForSongs(demoApp.url);
      await page.reload();
      await page
        .getByRole('checkbox', { name: /^Done: / })
        .first()
        .waitFor();
      await page.screenshot({ path: `${FOLDER}/songs${colorScheme === 'dark' ? '-dark' : ''}.png` });
    });
  });
}

for (const step of ['tuning', 'sections'] as const) {
  test(step, async ({ demoApp, page }) => {
    const shelf = new Shelf(page);
    await shelf.open(demoApp.url);
    await (await shelf.openSong('Salt on the Wire')).ready();
    await page.getByRole('tab', { name: step, exact: false }).click();
    if (step === 'sections') await page.locator('tbody tr').nth(1).click();
    await page.mouse.move(640, 780);
    await page.waitForTimeout(700);
    await page.screenshot({ path: `${FOLDER}/${step}.png` });
  });
}

for (const colorScheme of ['light', 'dark'] as const) {
  test.describe(() => {
    test.use({ colorScheme });
    test(`the riffs, ${colorScheme}`, async ({ demoApp, page }) => {
      const shelf = new Shelf(page);
      await shelf.open(demoApp.url);
      await playVerse(await shelf.openSong('Salt on the Wire'));
      await page.screenshot({ path: `${FOLDER}/riffs${colorScheme === 'dark' ? '-dark' : ''}.png` });
    });
  });
}

for (const [name, colorScheme] of [
  ['instruments', 'light'],
  ['instruments-dark', 'dark'],
] as const) {
  test.describe(() => {
    test.use({ colorScheme });
    test(name, async ({ demoApp, page }) => {
      const shelf = new Shelf(page);
      await shelf.open(demoApp.url);
      await (await shelf.openSong('Salt on the Wire')).ready();
      await page.getByRole('radio', { name: 'Riff B' }).click();
      await page.getByRole('button', { name: 'Loop pass 3' }).click();
      await page.getByRole('button', { name: 'Parts' }).click();
      const panel = page.getByRole('region', { name: 'Instruments' });
      // The other one finds them apart.
      if (name === 'instruments') {
        await panel.getByRole('button', { name: /^Roughly/ }).click();
        await panel.focus();
        await page.keyboard.press('6');
        await page.keyboard.press('7');
        await panel.getByRole('slider', { name: 'Drums, level' }).fill('-10');
        await panel.getByText('the loop is ready').waitFor({ timeout: 60_000 });
      } else await panel.getByText('The band is apart').waitFor({ timeout: 60_000 });
      await page.mouse.move(640, 400);
      await page.waitForTimeout(600);
      await page.screenshot({ path: `${FOLDER}/${name}.png` });
    });
  });
}

/** Past what is not struck, to the first chord that clashes; and to its root on the lowest string. */
const DOWN_TO_CHORD = Array.from({ length: 7 }, () => 'ArrowDown');
const RIGHT = Array.from({ length: 5 }, () => 'ArrowRight');

for (const [name, colorScheme, keys] of [
  ['check', 'light', DOWN_TO_CHORD],
  ['check-dark', 'dark', ['ArrowDown']],
  ['check-ear-first', 'light', [...DOWN_TO_CHORD, 'o', ...RIGHT, '2', 'Enter', 'ArrowDown', '3']],
] as const) {
  test.describe(() => {
    test.use({ colorScheme });
    test(name, async ({ demoApp, page }) => {
      await writeWrong(demoApp.url);
      const shelf = new Shelf(page);
      await shelf.open(demoApp.url);
      await (await shelf.openSong('Salt on the Wire')).ready();
      await page.getByRole('tab', { name: 'Check', exact: true }).click();
      await page.getByText(/to settle/).waitFor();
      await page.waitForFunction(() => !document.body.innerText.includes('Comparing'));
      for (const key of keys) await page.keyboard.press(key);
      await page.mouse.move(640, 780);
      await page.waitForTimeout(900);
      await page.screenshot({ path: `${FOLDER}/${name}.png` });
    });
  });
}

test('sheet', async ({ demoApp, page }) => {
  const shelf = new Shelf(page);
  await shelf.open(demoApp.url);
  await (await shelf.openSong('Salt on the Wire')).ready();
  await page.getByRole('tab', { name: 'Sheet', exact: true }).click();
  await page.getByRole('article').first().waitFor();
  await page.mouse.move(640, 780);
  await page.waitForTimeout(900);
  await page.screenshot({ path: `${FOLDER}/sheet.png` });
  await page.emulateMedia({ colorScheme: 'dark' });
  await page.waitForTimeout(300);
  await page.screenshot({ path: `${FOLDER}/sheet-dark.png` });

  await page.emulateMedia({ colorScheme: 'light' });
  const strings = ['D#', 'A#', 'F#', 'C#', 'G#', 'C#'];
  const frets = ['-', '-', '-', '0-------3---?---', '0---0-0-3---5---', '0---0-0-3---5'];
  const lines = strings.map((string, i) => `${string}|${frets[i].padEnd(i === 5 ? 13 : 16, '-')}|`);
  const text = ['By hand', '', '[Verse]', '    PM--|', ...lines].join('\n');
  const file = { name: 'by-hand.txt', mimeType: 'text/plain', buffer: Buffer.from(text) };
  await page.getByLabel('A file to bring in').setInputFiles(file);
  await page.getByText(/in this file/).waitFor();
  await page.waitForTimeout(600);
  await page.screenshot({ path: `${FOLDER}/bring-in.png` });
});

test('versions', async ({ demoApp, page }) => {
  await writeWrong(demoApp.url);
  const shelf = new Shelf(page);
  await shelf.open(demoApp.url);
  await (await shelf.openSong('Salt on the Wire')).ready();
  await page.getByRole('link', { name: 'Versions of this song' }).click();
  await page.getByText('The oldest that is kept').waitFor();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await page.waitForTimeout(900);
  await page.screenshot({ path: `${FOLDER}/versions.png` });
});

/** A fortnight of practising the verse: most days, a step faster now and then. */
async function practised(url: string): Promise<void> {
  const [summary] = songSummarySchema
    .array()
    .parse(await (await fetch(`${url}/api/songs`)).json())
    .filter(({ title }) => title === 'Salt on the Wire');
  const { document } = openSongSchema.parse(await (await fetch(`${url}/api/songs/${summary.id}`)).json());
  const item = `riff:${document.riffs[1].id}`;
  const DAY_MS = 24 * 3600 * 1000;
  const played = [12, 11, 9, 8, 6, 5, 4, 2, 1].flatMap((daysAgo, i) =>
    Array.from({ length: 12 + ((7 * i) % 9) }, (_, round) => ({
      at: new Date(Date.now() - daysAgo * DAY_MS + round * 60_000).toISOString(),
      percent: 60 + 5 * Math.floor(i / 2) + (round > 8 ? 5 : 0),
      answer: round % 5 === 4 ? 'slip' : 'clean',
    })),
  );
  for (const round of played) {
    await fetch(`${url}/api/practice-rounds/${crypto.randomUUID()}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({
        ...round,
        ...{ songId: summary.id, item, way: 'whole', isWhole: true, seconds: 70, heard: null },
      }),
    });
  }
}

for (const [name, colorScheme, isListened] of [
  ['practice', 'light', false],
  ['practice-heard', 'light', true],
  ['practice-dark', 'dark', true],
] as const) {
  test.describe(() => {
    test.use({ colorScheme });
    test(name, async ({ demoApp, page }) => {
      if (isListened) await practised(demoApp.url);
      const shelf = new Shelf(page);
      await shelf.open(demoApp.url);
      await (await shelf.openSong('Salt on the Wire')).ready();
      await page.getByRole('tab', { name: 'Practice', exact: true }).click();
      const verse = page.getByRole('option', { name: /^Riff B, / });
      await verse.click();
      if (isListened) await page.getByRole('button', { name: 'Simulated player' }).click();
      await page.keyboard.press('Space');
      if (isListened) await page.getByText(/strums in round 2/).waitFor({ timeout: 40_000 });
      await page.mouse.move(640, 780);
      await page.waitForTimeout(isListened ? 1500 : 2600);
      await page.screenshot({ path: `${FOLDER}/${name}.png` });
    });
  });
}
