/**
 * Songs whose beats were heard wrongly, or not at all, put right by hand: how many presses and clicks it takes. The recordings are
 * fluidsynth's. `WN_COUNTS=1` writes the counts to `bench/screen/putting-right.json`.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, type Locator, type Page } from '@playwright/test';
import { openSongSchema, type OpenSong } from '@wild-needle/contract';
import { test } from '../support/app';
import { BPM } from '../support/fluidsynth-riff';
import { Riffs, Shelf } from '../support/pages';

/** Beats of the rendered recording: a quarter of silence, sixteen bars. */
const BEAT_S = 60 / BPM;
const TRUE_BEATS = Array.from({ length: 65 }, (_, i) => BEAT_S * (i + 1));
const TRUE_DOWNBEATS = TRUE_BEATS.filter((_, i) => i % 4 === 0);
/** Within so much a beat counts as right (the usual window of MIREX audio beat tracking). */
const WINDOW_S = 0.07;
const TITLE = 'Four bar riff';

/** F-measure of found instants against true ones. */
function fMeasure(found: readonly number[], truth: readonly number[]): number {
  const inside = found.filter((t) => t >= truth[0] - WINDOW_S && t <= truth.at(-1)! + WINDOW_S);
  const hits = truth.filter((t) => inside.some((f) => Math.abs(f - t) <= WINDOW_S)).length;
  return (2 * hits) / (inside.length + truth.length);
}

type SongDocument = OpenSong['document'];
type BeatGrid = SongDocument['grid'];

/** Where bars begin, and where the last one ends. */
function barTimesS({ beatsS, bars }: BeatGrid): number[] {
  const last = bars.at(-1)!;
  return [...bars.map((bar) => bar.beat), last.beat + last.beats].flatMap((beat) => beatsS[beat] ?? []);
}

/** Bars of one meter over all beats. */
function barsOf(beatsS: readonly number[], beats: number): BeatGrid['bars'] {
  return Array.from({ length: Math.floor((beatsS.length - 1) / beats) }, (_, i) => ({
    beat: beats * i,
    beats,
    unit: 4 as const,
  }));
}

/** Hands that count what they do. */
class Hands {
  actions = 0;
  constructor(readonly page: Page) {}

  async press(...keys: string[]): Promise<void> {
    for (const key of keys) {
      await this.page.keyboard.press(key);
      this.actions++;
    }
  }

  async click(target: Locator): Promise<void> {
    await target.click();
    this.actions++;
  }

  async fill(target: Locator, text: string): Promise<void> {
    await target.fill(text);
    await target.press('Enter');
    this.actions++;
  }

  /** A hand taps `key` with beats of the recording while it plays: late by habit, and never quite even. */
  async tapAlong(key: string, beatsS: readonly number[], durationS: number): Promise<void> {
    const HABIT_S = 0.04;
    const taps = beatsS.map((t, i) => t + HABIT_S + 0.02 * Math.sin(5 * i));
    await this.page.evaluate(
      ({ key: tapped, taps: waiting, durationS: lengthS }) =>
        new Promise<void>((resolve) => {
          const lane = document.querySelector('wn-groove-strip .lane')!;
          const watch = (): void => {
            const needle = lane.querySelector<HTMLElement>('wn-needle')!;
            const x = Number(/-?[\d.]+/.exec(needle.style.transform)?.[0]);
            const nowS = (x / lane.clientWidth) * lengthS;
            if (nowS >= waiting[0]) {
              waiting.shift();
              document.body.dispatchEvent(
                new KeyboardEvent('keydown', { key: tapped, bubbles: true, cancelable: true }),
              );
            }
            if (waiting.length > 0) requestAnimationFrame(watch);
            else resolve();
          };
          watch();
        }),
      { key, taps, durationS },
    );
    this.actions += taps.length;
  }
}

async function songAt(page: Page, url: string): Promise<OpenSong> {
  const songId = new URL(page.url()).pathname.split('/')[2];
  return openSongSchema.parse(await (await page.request.get(`${url}/api/songs/${songId}`)).json());
}

/** Opens the rendered recording, and brings the document to what `change` makes of it. */
async function open(
  page: Page,
  url: string,
  change: (document: SongDocument) => SongDocument,
): Promise<Riffs> {
  const shelf = new Shelf(page);
  await shelf.open(url);
  await shelf.openSong(TITLE);
  const { id, revision, document } = await songAt(page, url);
  const saved = await page.request.put(`${url}/api/songs/${id}/document`, {
    data: { baseRevision: revision, document: change(document) },
  });
  expect(saved.ok()).toBe(true);
  await page.reload();
  const riffs = new Riffs(page);
  await riffs.ready();
  return riffs;
}

function tell(what: string, actions: number): void {
  if (!process.env['WN_COUNTS']) return;
  const path = join(import.meta.dirname, '../../bench/screen/putting-right.json');
  let known: Record<string, unknown> = {};
  try {
    known = JSON.parse(readFileSync(path, 'utf8')) as typeof known;
  } catch {
    // The first count.
  }
  writeFileSync(path, `${JSON.stringify({ ...known, [what]: actions }, null, 2)}\n`);
}

/** The same song on beats at another tempo, with bars that begin beside the true ones. */
function wrongTempo(document: SongDocument): SongDocument {
  const beatsS = Array.from({ length: 48 }, (_, i) => 0.3 + 1.37 * BEAT_S * i);
  return { ...document, grid: { beatsS, bars: barsOf(beatsS, 4) } };
}

test('a song heard at a wrong tempo is right after a few taps', async ({ riffApp, page }) => {
  await open(page, riffApp.url, wrongTempo);
  const before = await songAt(page, riffApp.url);
  expect(fMeasure(before.document.grid.beatsS, TRUE_BEATS)).toBeLessThan(0.3);

  const hands = new Hands(page);
  await hands.click(page.getByRole('tab', { name: 'Sections' }));
  await hands.press('Space');
  await hands.tapAlong('t', TRUE_BEATS.slice(4, 16), before.recording!.durationS);
  await hands.press('Space');
  await hands.press('g');
  const beatsThere = (): Promise<number> =>
    songAt(page, riffApp.url).then(({ document }) => fMeasure(document.grid.beatsS, TRUE_BEATS));
  await expect.poll(beatsThere).toBeGreaterThanOrEqual(0.98);

  const { grid } = (await songAt(page, riffApp.url)).document;
  expect(fMeasure(barTimesS(grid), TRUE_DOWNBEATS)).toBeGreaterThanOrEqual(0.98);
  expect(hands.actions).toBeLessThanOrEqual(25);
  tell('wrong tempo', hands.actions);
});

test('six eight that was heard as three four takes two presses', async ({ riffApp, page }) => {
  // Counted in threes, as it was heard; in truth its bars have six eighths.
  await open(page, riffApp.url, (document) => ({
    ...document,
    grid: { ...document.grid, bars: barsOf(document.grid.beatsS, 3) },
    riffs: document.riffs.slice(0, 1).map((riff) => ({
      ...riff,
      bars: [{ beats: 3, unit: 4 as const }],
      strums: riff.strums.filter((s) => s.startTicks < 3 * 960),
    })),
    sections: [{ ...document.sections[0], startBar: 0, passes: 4 }],
  }));
  const before = (await songAt(page, riffApp.url)).document;
  await page.getByRole('tab', { name: 'Sections' }).click();
  const hands = new Hands(page);
  await hands.click(page.getByRole('radio', { name: 'Beats and bars' }));
  await hands.click(page.getByRole('button', { name: /^6\/8 at 75, use it/ }));
  const isWritten = ({ document }: OpenSong): boolean => document.grid.bars.every(({ unit }) => unit === 8);
  await expect.poll(async () => isWritten(await songAt(page, riffApp.url))).toBe(true);
  const after = (await songAt(page, riffApp.url)).document;
  expect(barTimesS(after.grid)).toEqual(barTimesS(before.grid));
  expect(after.riffs).toEqual(
    before.riffs.map((riff) => ({ ...riff, bars: riff.bars.map(() => ({ beats: 6, unit: 8 })) })),
  );
  expect(hands.actions).toBeLessThanOrEqual(3);
  tell('six eight heard as three four', hands.actions);
});

test('one bar gets a meter of its own, the rest keeps what it has', async ({ riffApp, page }) => {
  await open(page, riffApp.url, (document) => document);
  const { bars: before } = (await songAt(page, riffApp.url)).document.grid;
  await page.getByRole('tab', { name: 'Sections' }).click();
  await page.getByRole('radio', { name: 'Beats and bars' }).click();
  // The third bar.
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+Shift+ArrowRight');
  await page.getByRole('spinbutton', { name: 'Beats of a bar' }).fill('3');
  await page.getByRole('button', { name: 'Set 3/4 for' }).click();
  await page.getByRole('menuitem', { name: 'this bar', exact: true }).click();
  const beatsNow = async (): Promise<number[]> =>
    (await songAt(page, riffApp.url)).document.grid.bars.map(({ beats }) => beats);
  await expect.poll(async () => (await beatsNow())[2]).toBe(3);
  // The bars behind it begin a beat earlier; the last one takes what is left.
  const after = await beatsNow();
  expect(after.toSpliced(2, 1).slice(0, -1)).toEqual(before.slice(2).map(() => 4));
  await page.keyboard.press('Control+z');
  await expect.poll(beatsNow).toEqual(before.map(({ beats }) => beats));
});

test('a song in which nothing was heard gets its beats, six sections and its first riff', async ({
  riffApp,
  page,
}) => {
  const bare = (document: SongDocument): SongDocument => ({
    ...document,
    grid: { beatsS: [], bars: [] },
    riffs: [],
    sections: [],
  });
  const riffs = await open(page, riffApp.url, bare);
  const { durationS } = (await songAt(page, riffApp.url)).recording!;
  const hands = new Hands(page);
  await hands.click(page.getByRole('tab', { name: 'Sections' }));
  await hands.press('Space');
  await hands.tapAlong('t', TRUE_BEATS.slice(0, 8), durationS);
  await hands.press('Space');

  // Six parts: where each begins, and what it is called.
  await hands.press('Shift+Home', 'Control+Shift+ArrowRight');
  const names = ['Intro', 'Verse 1', 'Chorus 1', 'Verse 2', 'Chorus 2', 'Outro'];
  for (const [i, name] of names.entries()) {
    if (i > 0) await hands.press('Control+Shift+ArrowRight', 'Control+Shift+ArrowRight');
    await hands.press('m');
    const field = page.getByRole('textbox', { name: 'Name of the section' });
    await expect(field).toHaveValue(`Part ${i + 1}`);
    await hands.fill(field, name);
  }
  const rows = page.locator('tbody tr');
  await expect(rows).toHaveCount(6);
  for (const [i, name] of names.entries()) await expect(rows.nth(i)).toContainText(name);
  await expect(page.getByLabel('Order of play')).toContainText('Intro A');

  // The first riff: E5, G5, A5 on the sixth string and its neighbour.
  await hands.click(rows.first());
  await hands.press('F9');
  await expect(riffs.grid).toBeVisible();
  await hands.press('0', 'Enter', '3', 'Enter', '5');
  await expect.poll(() => riffs.strums().then((s) => s.length)).toBeGreaterThanOrEqual(3);
  await expect(riffs.saved).toBeVisible();

  const { grid, sections } = (await songAt(page, riffApp.url)).document;
  expect(fMeasure(grid.beatsS, TRUE_BEATS)).toBeGreaterThanOrEqual(0.98);
  expect(fMeasure(barTimesS(grid), TRUE_DOWNBEATS)).toBeGreaterThanOrEqual(0.98);
  const starts = sections.map((s) => barTimesS(grid)[s.startBar]);
  starts.forEach((t) =>
    expect(Math.min(...TRUE_DOWNBEATS.map((d) => Math.abs(d - t)))).toBeLessThan(WINDOW_S),
  );
  expect(hands.actions).toBeLessThanOrEqual(60);
  tell('nothing heard', hands.actions);
});
