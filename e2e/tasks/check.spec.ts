/** Checking a tab against a recording that fluidsynth played: errors of five kinds are found, and put right by keys alone. */
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, type Page } from '@playwright/test';
import {
  importAnswerSchema,
  openSongSchema,
  ROUTES,
  songSummarySchema,
  type OpenSong,
  songDocumentSchema,
} from '@wild-needle/contract';
import { test, type App } from '../support/app';
import { renderRiff, strumsOf, type Bar } from '../support/fluidsynth-riff';

type Document = OpenSong['document'];
type Strum = Document['riffs'][number]['strums'][number];

const M = { muted: 40 };
const BARS: readonly Bar[] = [
  [40, null, M, M, 43, null, 45, null],
  [40, null, M, M, 47, null, 45, null],
  [43, null, null, null, 45, null, M, M],
  [48, null, null, null, 47, null, null, null],
];
const PASSES = 4;
const QUARTER = 960;
const SECTION = 'played';
const NAME = 'Checked riff';

/** The riff as fluidsynth plays it, on the three thickest strings; `beat` counts from its first bar. */
function strumAt(beat: number, beats: number, root: number, changes: Partial<Strum> = {}): Strum {
  const fret = root - 40;
  const parsed = songDocumentSchema.parse({
    schema: 'wild-needle/song@2',
    ...{ title: 'x', artist: '', key: null, referenceOffsetCents: 0, recordings: [], sections: [] },
    tuning: { name: 'Standard', stringsMidi: [40, 45, 50, 55, 59, 64], capo: 0 },
    grid: { beatsS: [], bars: [] },
    riffs: [
      {
        ...{ id: 'r', letter: 'A', name: '', bars: [{ beats: 4, unit: 4 }] },
        strums: [
          {
            id: `strum-${beat}`,
            startTicks: beat * QUARTER,
            durationTicks: beats * QUARTER,
            frets: [
              { string: 6, fret },
              { string: 5, fret: fret + 2 },
              { string: 4, fret: fret + 2 },
            ],
            palmMute: false,
            dead: false,
            trust: 'heard',
          },
        ],
      },
    ],
  });
  return { ...parsed.riffs[0].strums[0], ...changes };
}

function trueStrums(): Strum[] {
  return strumsOf(BARS).map(({ beat, beats, root, muted }) =>
    strumAt(beat, beats, root, { palmMute: muted }),
  );
}

/** The song with one riff, on the beats that were heard. */
function written(song: OpenSong, strums: readonly Strum[]): Document {
  const { document } = song;
  const riff = { ...document.riffs[0], id: 'r', letter: 'A', name: 'Riff A', variations: [], groups: [] };
  const bars = BARS.map(() => ({ beats: 4, unit: 4 as const }));
  const section = {
    ...document.sections[0],
    ...{ id: SECTION, name: 'Verse', riffId: 'r', passes: PASSES, transpose: 0, skipBars: 0, cutBars: 0 },
    ...{ answers: [], settled: [] },
  };
  return {
    ...document,
    tuning: { name: 'Standard', stringsMidi: [40, 45, 50, 55, 59, 64], capo: 0 },
    riffs: [{ ...riff, bars, strums: [...strums].sort((a, b) => a.startTicks - b.startTicks) }],
    sections: [section],
  };
}

async function save(app: App, song: OpenSong, document: Document): Promise<OpenSong> {
  const answer = await fetch(`${app.url}${ROUTES.saveSong.path.replace(':id', song.id)}`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ baseRevision: song.revision, document }),
  });
  expect(answer.status).toBe(200);
  return open(app, song.id);
}

async function open(app: App, id: string): Promise<OpenSong> {
  return openSongSchema.parse(
    await (await fetch(`${app.url}${ROUTES.openSong.path.replace(':id', id)}`)).json(),
  );
}

async function textTab(app: App, { id }: OpenSong): Promise<string> {
  return (await fetch(`${app.url}/api/songs/${id}/export/text-tab`)).text();
}

const allPasses = (bars: readonly Bar[]): readonly Bar[] => Array.from({ length: PASSES }, () => bars).flat();

/** The recording brought in and listened to; `right`: what the right guitar plays, where that is something else. */
async function heardSong(app: App, right: readonly Bar[] = BARS): Promise<OpenSong> {
  const path = renderRiff(mkdtempSync(join(tmpdir(), 'wn-check-')), {
    arrangement: { name: NAME, bpm: 112, bars: allPasses(BARS), rightBars: allPasses(right) },
  });
  const answer = await fetch(`${app.url}${ROUTES.importRecording.path}?fileName=checked.wav`, {
    method: 'POST',
    body: new Uint8Array(readFileSync(path)),
  });
  const { songId } = importAnswerSchema.parse(await answer.json());
  await expect.poll(async () => (await open(app, songId)).job?.status, { timeout: 90_000 }).toBe('done');
  return open(app, songId);
}

/** The row that is looked at, as it is read aloud. */
const chosen = (page: Page) =>
  page.getByRole('listbox', { name: 'To settle' }).locator('[aria-selected=true]');
const where = (page: Page) => page.locator('wn-check-page .title h2');

test('finds errors of five kinds in a tab, puts them right by keys, and leaves alone what the ear keeps', async ({
  app,
  page,
}) => {
  test.setTimeout(120_000);
  const song = await heardSong(app);
  // At 48 the player takes two strings of three: heard otherwise, and kept.
  const truth = trueStrums().map((s) =>
    s.startTicks === 12 * QUARTER ? { ...s, frets: s.frets.slice(0, 2) } : s,
  );
  const right = await save(app, song, written(song, truth));
  const wanted = await textTab(app, right);

  const wrong = truth
    .filter((s) => s.startTicks !== 10 * QUARTER)
    .map((s): Strum => {
      if (s.startTicks === 2 * QUARTER) return strumAt(2, 1, 45, { id: s.id });
      if (s.startTicks === 6 * QUARTER) return { ...s, palmMute: true };
      if (s.startTicks === 14 * QUARTER)
        return { ...s, startTicks: 14.5 * QUARTER, durationTicks: 1.5 * QUARTER };
      return s;
    });
  const planted = [...wrong, strumAt(9, 1, 43)];
  await save(app, right, written(right, planted));

  await page.goto(`${app.url}/songs/${song.id}/check`);
  await expect(page.getByText(/\d+ to settle/)).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText(/Comparing/)).toHaveCount(0, { timeout: 60_000 });

  /** By the place that is asked about: the key that a guitarist who knows the riff presses. */
  const answers: readonly [place: RegExp, key: string][] = [
    [/bar 1, beat 3$/, 'h'],
    [/bar 2, beat 3$/, 'h'],
    [/bar 3, beat 2$/, 'h'],
    [/bar 3, beat 3$/, 'h'],
    [/bar 4, 3 &$/, 'h'],
    [/bar 4, beat 1$/, 'y'],
  ];
  const met = new Set<string>();
  for (let step = 0; step < 40; step++) {
    const before = await chosen(page)
      .getAttribute('id', { timeout: 3000 })
      .catch(() => null);
    if (before === null) break;
    const title = await where(page).innerText();
    const found = answers.find(([place]) => place.test(title));
    if (found) met.add(String(found[0]));
    await page.keyboard.press(found?.[1] ?? 'y');
    await expect(page.locator(`[id="${before}"][aria-selected=true]`)).toHaveCount(0);
    if (found?.[1] === 'y' && (await page.getByText(/Also in/).count()) > 0) await page.keyboard.press('b');
  }
  expect([...met].sort()).toEqual(answers.map(([place]) => String(place)).sort());
  await expect(page.getByText(/All \d+ settled/)).toBeVisible();
  await expect(page.locator('wn-header').getByText('Saved', { exact: true })).toBeVisible();
  expect(await textTab(app, right)).toBe(wanted);

  // What the ear has settled is not asked again.
  await page.reload();
  await expect(page.getByText(/All \d+ settled/)).toBeVisible({ timeout: 30_000 });
});

const RIGHT: readonly Bar[] = [
  [52, null, null, null, 50, null, null, null],
  [52, null, null, null, 54, null, 57, null],
  [55, null, null, null, 55, null, null, null],
  [52, null, 52, null, 54, null, null, null],
];

test('holds each of two guitars against its own side of the recording', async ({ app, page }) => {
  test.setTimeout(120_000);
  const song = await heardSong(app, RIGHT);
  const others = strumsOf(RIGHT).map(({ beat, beats, root }) =>
    strumAt(beat, beats, root, { id: `right-${beat}` }),
  );
  const isWrong = (s: Strum): boolean => s.startTicks === 6 * QUARTER;
  const wrong = strumAt(6, 1, 56, { id: 'right-6' });
  const document = written(song, trueStrums());
  await save(app, song, {
    ...document,
    guitar2: document.tuning,
    riffs: document.riffs.map((r) => ({ ...r, guitar2: others.map((s) => (isWrong(s) ? wrong : s)) })),
  });
  await page.goto(`${app.url}/songs/${song.id}/check`);
  // All of the left guitar is borne out: its mutes too, which the right one covers where both are heard together.
  await expect(page.getByText(/All 64 settled/)).toBeVisible({ timeout: 60_000 });

  await page.getByRole('radio', { name: /Guitar 2/ }).click();
  await expect(page.getByText(/4 to settle/)).toBeVisible({ timeout: 60_000 });
  await expect(where(page)).toHaveText(/bar 2, beat 3$/);
  await expect(chosen(page)).toHaveAccessibleName(/G#5, F#5 heard/);
});

/** Fluidsynth's riff, of which one strum is written a fret too high in every pass. */
async function oneWrong(app: App): Promise<OpenSong> {
  const [{ id }] = songSummarySchema
    .array()
    .parse(await (await fetch(`${app.url}${ROUTES.listSongs.path}`)).json());
  const song = await open(app, id);
  const [riff, ...others] = song.document.riffs;
  const strums = riff.strums.map((s, i) =>
    i === 1 ? { ...s, frets: s.frets.map((f) => ({ ...f, fret: f.fret + 1 })) } : s,
  );
  return save(app, song, { ...song.document, riffs: [{ ...riff, strums }, ...others] });
}

test('covers what is heard until the ear has named it, and counts what it named', async ({
  riffApp,
  page,
}) => {
  const song = await oneWrong(riffApp);
  await page.goto(`${riffApp.url}/songs/${song.id}/check`);
  await expect(page.getByText(/\d+ to settle/)).toBeVisible({ timeout: 30_000 });
  await expect(page.getByText(/Comparing/)).toHaveCount(0, { timeout: 60_000 });
  const heard = await chosen(page).getAttribute('aria-label');
  expect(heard).toMatch(/ heard, .+clashes/);

  await page.keyboard.press('o');
  const sleeve = page.getByRole('img', { name: 'Covered: what the program heard' });
  await expect(sleeve).toBeVisible();
  await expect(page.getByText('Heard now')).toHaveCount(0);
  expect(await chosen(page).getAttribute('aria-label')).not.toMatch(/heard|clashes/);
  await page.keyboard.press('y');
  await expect(page.getByText('Say what you hear first, or press S to open it')).toBeVisible();
  await expect(sleeve).toBeVisible();

  // The root on the lowest string, and the kind: what it is can be read from the list of before.
  const name = /, ([A-G]#?)5 heard/.exec(heard ?? '')?.[1] ?? '';
  const fret = ['E', 'F', 'F#', 'G', 'G#', 'A', 'A#', 'B', 'C', 'C#', 'D', 'D#'].indexOf(name);
  for (let i = 0; i < fret; i++) await page.keyboard.press('ArrowRight');
  await page.keyboard.press('2');
  await page.keyboard.press('Enter');
  await expect(sleeve).toHaveCount(0);
  await expect(page.getByText(`You said ${name}5: right.`)).toBeVisible();
  await expect(page.getByText('Heard now')).toBeVisible();

  // The next one is covered again; opened without a guess it is not counted, and the first still is after a reload.
  await page.keyboard.press('ArrowDown');
  await expect(sleeve).toBeVisible();
  await expect(page.getByText('1 of 1 in six weeks')).toBeVisible();
  await page.keyboard.press('s');
  await expect(sleeve).toHaveCount(0);
  await page.reload();
  await expect(page.getByText('1 of 1 in six weeks')).toBeVisible({ timeout: 30_000 });
});

test('leaves a strum for later with a note, and takes an answer back', async ({ riffApp, page }) => {
  const song = await oneWrong(riffApp);
  const before = await textTab(riffApp, song);
  await page.goto(`${riffApp.url}/songs/${song.id}/check`);
  await expect(page.getByText(/Most doubtful first/)).toBeVisible({ timeout: 30_000 });
  await expect(page.getByText(/Comparing/)).toHaveCount(0);
  const first = await chosen(page).getAttribute('id');
  await page.keyboard.press('F2');
  await page.getByLabel('Note on this strum').fill('ask the drummer');
  await page.keyboard.press('Enter');
  // The keys are the screen's again.
  await expect(page.getByLabel('Note on this strum')).toHaveCount(0);
  await page.keyboard.press('d');
  await expect(page.locator(`[id="${first}"]`)).toHaveClass(/later/);

  const second = await where(page).innerText();
  await page.keyboard.press('h');
  // It is one strum of the riff: all of its passes are right now.
  await expect(page.getByText(/All \d+ settled/)).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByText(/\d+ to settle/)).toBeVisible();
  await expect(where(page)).toHaveText(second);
  await expect(page.locator('wn-header').getByText('Saved', { exact: true })).toBeVisible();
  expect((await textTab(riffApp, song)).replace(/.*ask the drummer.*\n/g, '')).toContain(
    before.split('\n').find((line) => line.startsWith('e|')) ?? '',
  );

  // On Riffs it says so itself.
  await page.getByRole('tab', { name: 'Riffs' }).click();
  await expect(page.getByRole('gridcell', { name: /left doubtful/ })).toBeVisible();
});

test('lists the versions of a song, and brings an older one back', async ({ riffApp, page }) => {
  const song = await open(riffApp, (await oneWrong(riffApp)).id);
  const before = await textTab(riffApp, song);
  await page.goto(`${riffApp.url}/songs/${song.id}/riffs`);
  await expect(page.getByRole('grid', { name: 'Written riff' })).toBeVisible();
  await page.keyboard.press('Delete');
  const saved = page.locator('wn-header').getByText('Saved', { exact: true });
  await expect(saved).toBeVisible();
  await expect.poll(() => textTab(riffApp, song)).not.toBe(before);

  await page.getByRole('link', { name: 'Versions of this song' }).click();
  const versions = page.getByRole('listbox', { name: 'Versions of the song' });
  await expect(versions.getByRole('option').first()).toContainText('taken out');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('list', { name: 'Differences' })).toContainText('written');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Brought back as a new version')).toBeVisible();
  await expect.poll(() => textTab(riffApp, song)).toBe(before);
});
