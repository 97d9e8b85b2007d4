/**
 * `npm run bench:screen -- sheet`: a song of four minutes with twelve riffs on the Sheet screen. How long its pages take to be laid out
 * (the functions that the screen calls, in Node), and from the key to the frame that shows them; how long each format takes to be
 * written. Written to `bench/screen/sheet.json`.
 */
import { writeFileSync } from 'node:fs';
import { expect } from '@playwright/test';
import { FORMATS } from '@wild-needle/core/formats';
import { paginate, paperOf, systemsOf } from '@wild-needle/core/sheet';
import type { SongDocument } from '@wild-needle/core/riff';
import { test } from '../../e2e/support/app';
import { Shelf } from '../../e2e/support/pages';
import { layoutRow } from '../../web/src/app/tab/row-layout';
import { longSong, TITLE } from './four-minutes';
import { putSong, type MadeSong } from './put-song';

const RIFFS = 12;
const ROUNDS = 15;
/** Width of a row on A4 across, as the screen has it. */
const ROW_PX = 987;
const STAVE_SCALE = 0.6;

/** The long song with as many riffs: copies of those it has, which its sections play in turn. */
function twelveRiffs(): MadeSong {
  const song = longSong();
  const { riffs, sections } = song.document;
  const all = Array.from({ length: RIFFS }, (_, i) => {
    const riff = riffs[i % riffs.length];
    const letter = String.fromCharCode(65 + i);
    const strums = riff.strums.map((s) => ({ ...s, id: `${letter}-${s.id}` }));
    return { ...riff, id: `riff-${letter}`, letter, name: `Riff ${letter}`, strums };
  });
  const played = sections.map((s, i) => ({ ...s, riffId: all[i % RIFFS].id }));
  return { ...song, document: { ...song.document, riffs: all, sections: played } };
}

function layOut(document: SongDocument): number {
  const rows = document.riffs.flatMap((riff) =>
    systemsOf(riff, ROW_PX).map(({ fromTicks, toTicks }) =>
      layoutRow(riff, {
        tuning: document.tuning,
        key: document.key,
        widthPx: ROW_PX / STAVE_SCALE,
        window: { fromTicks, toTicks },
        openString: null,
      }),
    ),
  );
  const blocks = rows.map(({ height }) => ({ heightPx: STAVE_SCALE * height + 90, isContinued: false }));
  const { heightPx } = paperOf('a4', false);
  return paginate(blocks, heightPx - 300, heightPx - 100).length;
}

const median = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];
const rounded = (ms: number): number => Math.round(10 * ms) / 10;

test('pages and files of a long song', async ({ app, page }) => {
  test.setTimeout(180_000);
  const made = twelveRiffs();
  const layouts = Array.from({ length: ROUNDS }, () => {
    const start = performance.now();
    expect(layOut(made.document)).toBeGreaterThan(1);
    return performance.now() - start;
  });
  const formats: Record<string, number> = {};
  for (const { id, write } of FORMATS) {
    await write(made.document);
    const start = performance.now();
    await write(made.document);
    formats[id] = rounded(performance.now() - start);
  }

  await putSong(page, app.url, made);
  const shelf = new Shelf(page);
  await shelf.open(app.url);
  await (await shelf.openSong(TITLE)).ready();
  await page.getByRole('tab', { name: 'Sheet', exact: true }).click();
  await expect(page.getByRole('article').first()).toBeVisible();
  // Another version lays everything out anew.
  const drawn = await page.evaluate(async (rounds) => {
    const times: number[] = [];
    for (let i = 0; i < rounds; i++) {
      const start = performance.now();
      dispatchEvent(new KeyboardEvent('keydown', { key: i % 2 === 0 ? '.' : ',', bubbles: true }));
      await new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve)));
      times.push(performance.now() - start);
    }
    return times;
  }, ROUNDS);
  const pages = await page.getByRole('article').count();

  writeFileSync(
    new URL('sheet.json', import.meta.url),
    `${JSON.stringify(
      {
        command: 'npm run bench:screen -- sheet',
        riffs: made.document.riffs.length,
        strums: made.document.riffs.reduce((sum, r) => sum + r.strums.length, 0),
        pages,
        layoutMs: rounded(median(layouts)),
        layoutSlowestMs: rounded(Math.max(...layouts)),
        layoutShareOf100Ms: rounded(median(layouts)) / 100,
        keyToPagesMs: rounded(median(drawn)),
        keyToPagesSlowestMs: rounded(Math.max(...drawn)),
        keyToPagesShareOf300Ms: Math.round((100 * median(drawn)) / 300) / 100,
        formatsMs: formats,
      },
      null,
      2,
    )}\n`,
  );
});
