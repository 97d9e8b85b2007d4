/** Slow it, loop it, correct it, take it away, and find it again after a restart. */
import { expect } from '@playwright/test';
import { test } from '../support/app';
import { toneWav } from '../support/tone-wav';
import { listenIn } from '../support/loudspeaker';
import { Shelf } from '../support/pages';

const SONG = 'Salt on the Wire';

test('slows to 60 per cent and loops two bars', async ({ demoApp, page }) => {
  const loudspeaker = await listenIn(page);
  const shelf = new Shelf(page);
  await shelf.open(demoApp.url);
  const riffs = await shelf.openSong(SONG);
  await riffs.ready();
  for (let i = 0; i < 8; i++) await page.keyboard.press('-');
  await expect.poll(() => riffs.speed()).toBe('60 %');

  await page.getByRole('button', { name: 'Loop pass 1 bars 1–2' }).click();
  await expect(page.getByRole('button', { name: /Pass 1/, pressed: true })).toBeVisible();
  const startS = await riffs.clock();
  await page.keyboard.press('Space');
  await expect.poll(() => loudspeaker.level()).toBeGreaterThan(0.02);

  // Two bars of four at 132 bpm are 3.64 s; at 60 % a round takes 6.06 s.
  const before = { clock: await riffs.clock(), at: await loudspeaker.clockS() };
  await loudspeaker.listenFor(2);
  const speed = ((await riffs.clock()) - before.clock) / ((await loudspeaker.clockS()) - before.at);
  expect(speed).toBeGreaterThan(0.5);
  expect(speed).toBeLessThan(0.7);
  await expect(page.getByText(/round 2/)).toBeVisible({ timeout: 10_000 });
  const inside = await riffs.clock();
  expect(inside).toBeGreaterThanOrEqual(startS - 0.1);
  expect(inside).toBeLessThan(startS + 3.7);
  expect(await loudspeaker.level()).toBeGreaterThan(0.02);

  await page.keyboard.press('Space');
  await expect.poll(() => loudspeaker.level()).toBeLessThan(0.002);
});

test('corrects the pitch of the recording or tunes the guitar to it, the same on every screen', async ({
  demoApp,
  page,
}) => {
  const shelf = new Shelf(page);
  await shelf.open(demoApp.url);
  const riffs = await shelf.openSong(SONG);
  await riffs.ready();
  await expect(page.getByRole('button', { name: /Pitch −38 ct/, pressed: true })).toBeVisible();
  await page.keyboard.press('p');
  await expect(page.getByRole('button', { name: /Pitch as it is/, pressed: false })).toBeVisible();
  await page.keyboard.press('F8');
  await page.keyboard.press('F8');
  await expect(page).toHaveTitle('Salt on the Wire, Tuning · Wild Needle');
  await expect(page.getByRole('button', { name: /Retune the guitar/, pressed: true })).toBeVisible();
  await expect(riffs.saved).toBeVisible();
  await page.reload();
  await expect(page.getByRole('button', { name: /Retune the guitar/, pressed: true })).toBeVisible();
  await expect(page.getByRole('button', { name: /Pitch as it is/, pressed: false })).toBeVisible();
  await page.keyboard.press('1');
  await expect(page.getByRole('button', { name: /Pitch −38 ct/, pressed: true })).toBeVisible();
});

test('corrects a fret and a mute by keys, undoes and redoes', async ({ demoApp, page }) => {
  const shelf = new Shelf(page);
  await shelf.open(demoApp.url);
  const riffs = await shelf.openSong(SONG);
  const original = await riffs.strums();

  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('1');
  await page.keyboard.press('2');
  await page.keyboard.press('m');
  await expect.poll(async () => (await riffs.strums())[1]).toContain('palm mute: string 6 fret 12');
  const edited = await riffs.strums();
  await expect(riffs.saved).toBeVisible();

  // One step for each key: 1, then 12, then the mute.
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z');
  await expect.poll(() => riffs.strums()).toEqual(original);
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+y');
  await expect.poll(() => riffs.strums()).toEqual(edited);
  await expect(riffs.saved).toBeVisible();

  const tab = await riffs.takeAway();
  expect(tab).toContain('PM');
  expect(tab).toMatch(/\|-.*12/);
});

test('strikes a chord once more, moves the stroke, and takes both back', async ({ demoApp, page }) => {
  const shelf = new Shelf(page);
  await shelf.open(demoApp.url);
  const riffs = await shelf.openSong('Salt on the Wire');
  await riffs.ready();
  const before = await riffs.strums();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await riffs.strums()).length).toBe(before.length + 1);
  await expect(page.getByText('9 strums')).toBeVisible();
  const place = page.locator('wn-strum-panel h3');
  const struckAt = await place.innerText();
  await page.keyboard.press('Control+ArrowRight');
  await expect(place).not.toHaveText(struckAt);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect.poll(() => riffs.strums()).toEqual(before);
});

test('keeps everything over a restart', async ({ ownApp, page }) => {
  const shelf = new Shelf(page);
  await shelf.open(ownApp.url);
  await shelf.choose({ name: 'short tone.wav', mimeType: 'audio/wav', buffer: toneWav([110], 0.5) });
  await expect(shelf.song('Short tone')).toBeVisible({ timeout: 30_000 });
  await ownApp.kill();
  await ownApp.restart();
  await shelf.open(ownApp.url);
  await expect(shelf.song('Short tone')).toBeVisible();
});

test('tells the second window and offers both versions', async ({ demoApp, browser }) => {
  const open = async () => {
    const page = await (await browser.newContext()).newPage();
    const shelf = new Shelf(page);
    await shelf.open(demoApp.url);
    return shelf.openSong('Nine Volt Harbour');
  };
  const page = await (await browser.newContext()).newPage();
  await new Shelf(page).open(demoApp.url);
  await expect(new Shelf(page).song('Nine Volt Harbour').getByText(/next: as it was heard/)).toBeVisible({
    timeout: 90_000,
  });

  const first = await open();
  const second = await open();
  await first.page.keyboard.press('7');
  await expect(first.saved).toBeVisible();
  await expect.poll(async () => (await first.strums())[0]).toContain('fret 7');
  const theirs = await first.strums();

  await second.page.keyboard.press('9');
  await expect.poll(async () => (await second.strums())[0]).toContain('fret 9');
  const mine = await second.strums();
  await expect(second.page.getByRole('alert')).toContainText('changed in another window');
  await second.page.getByRole('button', { name: 'Take theirs' }).click();
  await expect(second.page.getByRole('alert')).toBeHidden();
  await expect.poll(() => second.strums()).toEqual(theirs);
  // My version is one step of undo away.
  await second.page.keyboard.press('Control+z');
  await expect.poll(() => second.strums()).toEqual(mine);
  await expect(second.saved).toBeVisible();
});

test('the passes keep their room beside the card of keys, and their chords after it', async ({
  demoApp,
  page,
}) => {
  const shelf = new Shelf(page);
  await shelf.open(demoApp.url);
  const riffs = await shelf.openSong('Salt on the Wire');
  await riffs.ready();
  await page.getByRole('radio', { name: 'Riff B' }).click();
  const rows = page.locator('wn-pass-row');
  const names = () => rows.evaluateAll((all) => all.map((row) => row.querySelectorAll('.mark').length));
  await expect.poll(async () => Math.min(...(await names()))).toBeGreaterThan(8);
  const heard = await names();
  const passes = page.locator('.passes');
  const room = (await passes.boundingBox())!.height;
  await page.keyboard.press('?');
  await expect(page.getByRole('complementary', { name: 'Keys of this screen' })).toBeVisible();
  expect((await passes.boundingBox())!.height).toBe(room);
  await page.keyboard.press('Escape');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('x');
  await expect.poll(async () => (await passes.boundingBox())!.height).toBe(room);
  await expect.poll(names).toEqual(heard);
});

test('asks the server for a song once when it is opened', async ({ demoApp, page }) => {
  const asked: string[] = [];
  page.on('request', (request) => {
    const { pathname } = new URL(request.url());
    if (request.method() === 'GET' && /\/api\/songs\/[^/]+$/.test(pathname)) asked.push(pathname);
  });
  const shelf = new Shelf(page);
  await shelf.open(demoApp.url);
  const riffs = await shelf.openSong(SONG);
  await riffs.ready();
  expect(asked).toHaveLength(1);
});

test('says in words that my tab is silent while nothing is written', async ({ app, page }) => {
  const shelf = new Shelf(page);
  await shelf.open(app.url);
  await shelf.choose({ name: 'tone.wav', mimeType: 'audio/wav', buffer: toneWav([220], 3) });
  await shelf.song('Tone').getByRole('link').click();
  await expect(page.getByRole('button', { name: 'Play' })).toBeEnabled({ timeout: 30_000 });
  await page.keyboard.press('a');
  await expect(page.getByText(/“My tab” is silent/)).toBeVisible();
});
