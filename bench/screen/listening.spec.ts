/**
 * `npm run bench:screen -- listening`: how soon other ears are heard, what playback costs, how the strip draws while it is
 * zoomed, and what half an hour of stereo takes in the page. Written to `bench/screen/listening.json`.
 */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, type Page } from '@playwright/test';
import { test } from '../../e2e/support/app';
import { listenIn } from '../../e2e/support/loudspeaker';
import { Shelf } from '../../e2e/support/pages';
import { frameGaps } from './frames';

const SONG = 'Salt on the Wire';
const SWITCHES = 7;
const PLAY_S = 6;

const median = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];

interface Process {
  readonly cpuS: number;
  readonly rssMb: number;
  readonly isRenderer: boolean;
}

/** All processes of the browser. */
function browserProcesses(): Process[] {
  const lines = execFileSync('ps', ['-eo', 'cputimes,rss,args'], { encoding: 'utf8' }).split('\n');
  return lines
    .filter((line) => line.includes('chromium') && !line.includes('crashpad_handler'))
    .map((line) => {
      const [cpu, rss] = line.trim().split(/\s+/).map(Number);
      return { cpuS: cpu, rssMb: rss / 1024, isRenderer: line.includes('--type=renderer') };
    });
}

const cpuOf = (processes: readonly Process[]): number => processes.reduce((sum, p) => sum + p.cpuS, 0);

/** Share of one core that the browser takes over some seconds. */
async function cpuShare(page: Page): Promise<number> {
  const before = cpuOf(browserProcesses());
  await page.waitForTimeout(PLAY_S * 1000);
  return (cpuOf(browserProcesses()) - before) / PLAY_S;
}

test('switches ears, plays at half speed, zooms', async ({ demoApp, page }) => {
  test.setTimeout(300_000);
  const loudspeaker = await listenIn(page);
  const shelf = new Shelf(page);
  await shelf.open(demoApp.url);
  const riffs = await shelf.openSong(SONG);
  await riffs.ready();
  const resting = await cpuShare(page);
  for (let i = 0; i < 10; i++) await page.keyboard.press('-');
  await expect.poll(() => riffs.speed()).toBe('50 %');
  await page.keyboard.press('Space');
  await expect.poll(() => loudspeaker.level()).toBeGreaterThan(0.01);
  const playing = await cpuShare(page);

  // The new sound is put in as soon as its first part is made: then the stretcher is given other buffers.
  await page.evaluate(() => {
    const times: number[] = [];
    Object.assign(window, { switchTimes: times });
    let pressedAt = 0;
    addEventListener(
      'keydown',
      (event) => (pressedAt = event.key === 'e' ? event.timeStamp : pressedAt),
      true,
    );
    // Called with its own port below.
    // eslint-disable-next-line @typescript-eslint/unbound-method
    const post = MessagePort.prototype.postMessage;
    MessagePort.prototype.postMessage = function (this: MessagePort, ...args: unknown[]) {
      // The call that hands over channels.
      const parts = Array.isArray(args[0]) ? (args[0] as unknown[]) : [];
      const hasSound = parts.some((part) => Array.isArray(part) && part[0] instanceof Float32Array);
      if (pressedAt > 0 && hasSound) {
        times.push(performance.now() - pressedAt);
        pressedAt = 0;
      }
      (post as (...all: unknown[]) => void).apply(this, args);
    };
  });
  for (let i = 0; i < SWITCHES; i++) {
    await page.keyboard.press('e');
    await page.waitForTimeout(4000);
  }
  const switchTimes = await page.evaluate(() => (window as unknown as { switchTimes: number[] }).switchTimes);
  await page.keyboard.press('Space');

  const strip = page.getByRole('slider', { name: 'Place in the recording' });
  const box = (await strip.boundingBox())!;
  await page.mouse.move(box.x + 500, box.y + 20);
  const frames = await frameGaps(page, async () => {
    for (let i = 0; i < 60; i++) {
      await page.mouse.wheel(0, i < 36 ? -100 : 100);
      await page.waitForTimeout(50);
    }
  });
  await expect(page.locator('wn-groove-strip .groove path')).toBeVisible();

  const folder = mkdtempSync(join(tmpdir(), 'wn-half-hour-'));
  const file = join(folder, 'half an hour.flac');
  execFileSync('ffmpeg', [
    ...['-v', 'error', '-f', 'lavfi', '-i', 'sine=frequency=110:sample_rate=44100:duration=1800'],
    ...['-f', 'lavfi', '-i', 'anoisesrc=r=44100:d=1800:a=0.05'],
    ...['-filter_complex', '[0:a][1:a]join=inputs=2:channel_layout=stereo', file],
  ]);
  await shelf.open(demoApp.url);
  await shelf.choose(file);
  await shelf.song('Half an hour').getByRole('link').click({ timeout: 120_000 });
  await riffs.ready();
  const loaded = Math.max(
    ...browserProcesses()
      .filter((p) => p.isRenderer)
      .map((p) => p.rssMb),
  );
  await page.keyboard.press('f');
  let most = loaded;
  for (let i = 0; i < 30; i++) {
    await page.waitForTimeout(1000);
    most = Math.max(
      most,
      ...browserProcesses()
        .filter((p) => p.isRenderer)
        .map((p) => p.rssMb),
    );
  }
  const results = {
    command: 'npm run bench:screen -- listening',
    switchToFirstSoundMs: Math.round(median(switchTimes)),
    switchShareOf300Ms: Number((median(switchTimes) / 300).toFixed(2)),
    coresAtRest: Number(resting.toFixed(2)),
    coresPlayingAtHalfSpeed: Number(playing.toFixed(2)),
    zoomFramesPerSecond: Number(((1000 * frames.length) / frames.reduce((a, b) => a + b, 0)).toFixed(1)),
    zoomLongestFrameMs: Math.round(Math.max(...frames)),
    halfHourLoadedMb: Math.round(loaded),
    halfHourOtherEarsMostMb: Math.round(most),
    halfHourShareOf1Gb: Number((most / 1024).toFixed(2)),
  };
  writeFileSync('bench/screen/listening.json', `${JSON.stringify(results, null, 2)}\n`);
  process.stdout.write(`${JSON.stringify(results, null, 2)}\n`);
});
