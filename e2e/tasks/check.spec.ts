/** Checking a tab against a recording that fluidsynth played: errors of five kinds are found, and put right by keys alone. */
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, type Page } from '@playwright/test';
import {
  importAnswerSchema,
  openSongSchema,
  ROUTES,
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
  return (await fetch(`${app.url}/api/songs/${id}/formats/text-tab`)).text();
}

/** The recording brought in and listened to. */
async function heardSong(app: App): Promise<OpenSong> {
  const bars = Array.from({ length: PASSES }, () => BARS).flat();
  const path = renderRiff(mkdtempSync(join(tmpdir(), 'wn-check-')), {
    arrangement: { name: NAME, bpm: 112, bars },
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
