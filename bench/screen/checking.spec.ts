/**
 * `npm run bench:screen -- checking`: the Check screen with a song of four minutes in which every strum is written wrong, so that all
 * of them are in the list. How soon it is judged, the first doubt is shown, and shown again when the song is opened anew; how long a
 * change takes to be judged; and the time from a key to the frame that shows it. Written to `bench/screen/checking.json`.
 */
import { writeFileSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';
import { test } from '../../e2e/support/app';
import { Shelf } from '../../e2e/support/pages';
import { longSong, TITLE } from './four-minutes';
import { keyTimes } from './key-times';
import { putSong, type MadeSong } from './put-song';

const KEYS = 120;
const EDITS = 8;

/** All of it written a fret too high. */
function writtenWrong(): MadeSong {
  const song = longSong();
  const riffs = song.document.riffs.map((riff) => ({
    ...riff,
    strums: riff.strums.map((s) => ({ ...s, frets: s.frets.map((f) => ({ ...f, fret: f.fret + 1 })) })),
  }));
  return { ...song, document: { ...song.document, riffs } };
}

/** When each question is sent to the judge and answered, and when the sound is handed over. */
async function watchJudge(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const log: { kind: string; at: number }[] = [];
    Object.assign(window, { judgeLog: log });
    const Original = window.Worker;
    window.Worker = class extends Original {
      constructor(...args: ConstructorParameters<typeof Original>) {
        super(...args);
        this.addEventListener('message', ({ data }: MessageEvent<{ kind?: string }>) => {
          if (data.kind === 'judged') log.push({ kind: 'judged', at: performance.now() });
        });
      }
      override postMessage(message: { kind?: string }, transfer: unknown = []): void {
        if (message.kind === 'listen' || message.kind === 'judge') {
          log.push({ kind: message.kind, at: performance.now() });
        }
        super.postMessage(message, transfer as Transferable[]);
      }
    };
  });
}
const judgeLog = (page: Page): Promise<{ kind: string; at: number }[]> =>
  page.evaluate(() => (window as unknown as { judgeLog: { kind: string; at: number }[] }).judgeLog);

/** Milliseconds from now until a row of the list stands there. */
const untilRow = (page: Page, selector: string): Promise<number> =>
  page.evaluate(
    (row) =>
      new Promise<number>((resolve) => {
        const start = performance.now();
        const look = (): void => {
          if (document.querySelector(row)) resolve(performance.now() - start);
          else requestAnimationFrame(look);
        };
        document.querySelector<HTMLElement>('a[href$="/check"]')?.click();
        look();
      }),
    selector,
  );
const ROW = 'wn-doubt-list [role=option]';

test('judges a song of four minutes and answers to keys', async ({ app, page }) => {
  test.setTimeout(600_000);
  await watchJudge(page);
  await putSong(page, app.url, writtenWrong());
  const riffs = await new Shelf(page).openSong(TITLE);
  await riffs.ready();
  const firstMs = await untilRow(page, ROW);
  // The first look is judged as well, before there is sound.
  const heard = async (): Promise<boolean> => {
    const kinds = (await judgeLog(page)).map((l) => l.kind);
    return kinds.includes('listen') && kinds.lastIndexOf('judged') > kinds.indexOf('listen');
  };
  await expect.poll(heard, { timeout: 120_000 }).toBe(true);
  const log = await judgeLog(page);
  const listened = log.findIndex((l) => l.kind === 'listen');
  const judgedMs = log.slice(listened).find((l) => l.kind === 'judged')!.at - log[listened].at;
  const rows = Number(await page.locator(ROW).first().getAttribute('aria-setsize'));

  const keyToPaintMs = await keyTimes(
    page,
    Array.from({ length: KEYS }, () => 'ArrowDown'),
  );

  for (let i = 0; i < EDITS; i++) {
    await page.keyboard.press('y');
    await page.waitForTimeout(700);
  }
  const edits = (await judgeLog(page)).slice(log.length);
  const rejudgedMs = edits
    .flatMap((l, i) =>
      l.kind === 'judge' && edits[i + 1]?.kind === 'judged' ? [edits[i + 1].at - l.at] : [],
    )
    .sort((a, b) => a - b);

  await page.reload();
  await riffs.ready().catch(() => undefined);
  await page.goto(page.url().replace('/check', '/riffs'));
  await riffs.ready();
  const againMs = await untilRow(page, ROW);

  const rounded = (ms: number): number => Math.round(ms);
  const results = {
    command: 'npm run bench:screen -- checking',
    rows,
    judgedMs: rounded(judgedMs),
    judgedShareOf4S: Number((judgedMs / 4000).toFixed(2)),
    firstDoubtMs: rounded(firstMs),
    firstDoubtWhenOpenedAgainMs: rounded(againMs),
    judgedAgainAfterAnEditMs: rounded(rejudgedMs[Math.floor(rejudgedMs.length / 2)]),
    judgedAgainShareOf60Ms: Number((rejudgedMs[Math.floor(rejudgedMs.length / 2)] / 60).toFixed(2)),
    keyToPaintMs,
    keyToPaint95ShareOf32Ms: Number((keyToPaintMs.percentile95 / 32).toFixed(2)),
  };
  writeFileSync('bench/screen/checking.json', `${JSON.stringify(results, null, 2)}\n`);
  process.stdout.write(`${JSON.stringify(results, null, 2)}\n`);
});
