/** Write a riff by keys, mark it, keep what one pass does otherwise, and take it away as text. */
import { expect, type Locator, type Page } from '@playwright/test';
import { analysisSchema } from '@wild-needle/contract';
import { test } from '../support/app';
import { Shelf, type Riffs } from '../support/pages';

const SONG = 'Salt on the Wire';

/** What the keys of the first test write, put into tab by hand. */
const EXPECTED = [
  'Riff D (2 bars)',
  '',
  '   1                                 2',
  '    C#5             E5          F#5               G#5',
  '        PM--------|                       PM----|',
  'D#|---------------------------------|---------------------------------|',
  'A#|---------------------------------|---------------------------------|',
  'F#|---------------------------------|---------------------------------|',
  'C#|-0---0---0---0---3---3---x--/5---|-5---5---5-----------------------|',
  'G#|-0---0---0---0---3---3---x--/5---|-5---5---5---7-------------------|',
  'C#|-0---0---0---0---3---3---x--/5---|-5---5---5---7-------------------|',
  '    1   &   2   &   3   &   4   &     1   &   2   &   3   &   4   &',
  '',
];

/** Presses keys one after the other and counts them. */
async function press(page: Page, keys: string): Promise<number> {
  const list = keys.split(' ');
  for (const key of list) await page.keyboard.press(key);
  return list.length;
}

async function openDemo(page: Page, url: string): Promise<Riffs> {
  const shelf = new Shelf(page);
  await shelf.open(url);
  return shelf.openSong(SONG);
}

async function riffMenu(page: Page, item: string): Promise<void> {
  await page.getByRole('button', { name: 'Riff …' }).click();
  await page.getByRole('menuitem', { name: item }).click();
}

test('enters a riff of two bars and twelve strums from nothing in under sixty keys', async ({
  demoApp,
  page,
}) => {
  const riffs = await openDemo(page, demoApp.url);
  await riffMenu(page, 'New riff');
  await expect(page.getByText('Play the loop, then type a fret')).toBeVisible();
  expect(await riffs.strums()).toEqual([]);

  let keys = 0;
  // Drop C#: one finger straight across is a power chord of three strings.
  keys += await press(page, '0 Shift+Digit2 Enter m Enter Enter');
  keys += await press(page, 'i 3 Shift+Digit2 Enter Enter x');
  keys += await press(page, 'i 5 Shift+Digit2 s');
  keys += await press(page, 'Enter Enter m Enter');
  keys += await press(page, 'i 7 Shift+Digit1');
  await expect.poll(async () => (await riffs.strums()).length).toBe(12);
  expect(keys).toBeLessThan(60);

  const strums = await riffs.strums();
  const c5 = 'string 6 fret 0, string 5 fret 0, string 4 fret 0';
  expect(strums[0]).toBe(`C#5: ${c5}`);
  expect(strums[1]).toBe(`C#5 palm mute: ${c5}`);
  expect(strums[4]).toBe('E5: string 6 fret 3, string 5 fret 3, string 4 fret 3');
  expect(strums[6]).toBe('dead stroke');
  expect(strums[7]).toBe('F#5 slid into: string 6 fret 5, string 5 fret 5, string 4 fret 5');
  expect(strums[11]).toBe('G#5: string 6 fret 7, string 5 fret 7');

  // Everything goes back step by step, and forth again.
  for (let i = 0; i < 50; i++) await page.keyboard.press('Control+z');
  await expect.poll(() => riffs.strums()).not.toEqual(strums);
  for (let i = 0; i < 50; i++) await page.keyboard.press('Control+y');
  await page.getByRole('radio', { name: 'Riff D' }).click();
  await expect.poll(() => riffs.strums()).toEqual(strums);
  await expect(riffs.saved).toBeVisible();

  await page.reload();
  await page.getByRole('radio', { name: 'Riff D' }).click();
  await expect.poll(() => riffs.strums()).toEqual(strums);
  const tab = await riffs.takeAway();
  const written = tab.slice(tab.indexOf('Riff D'));
  expect(written.split('\n').slice(0, EXPECTED.length)).toEqual(EXPECTED);
  expect(tab).toContain('/ \\ before a fret = slid into from the one before');
});

test('sets every mark by one key, for several strums at once, and hears them in words', async ({
  demoApp,
  page,
}) => {
  const riffs = await openDemo(page, demoApp.url);
  await page.getByRole('radio', { name: 'Riff C' }).click();
  await expect.poll(async () => (await riffs.strums()).length).toBe(5);
  const marks: readonly (readonly [key: string, words: string])[] = [
    ['m', 'palm mute'],
    ['x', 'dead stroke'],
    ['/', 'rest'],
    ['r', 'ringing on'],
    ['t', 'short'],
    ['s', 'slid into'],
    ['Shift+S', 'slid into from below'],
    ['h', 'hammered or pulled off'],
    ['\\', 'tied'],
    ['u', 'bent by a quarter tone'],
    ['z', 'vibrato'],
    ['Shift+T', 'tremolo picking'],
    ['o', 'natural harmonic'],
    ['b', 'bar dip'],
    ["'", 'accent'],
    ['d', 'down stroke'],
  ];
  for (const [key, words] of marks) {
    await page.keyboard.press(key);
    await expect.poll(async () => (await riffs.strums())[0], words).toContain(words);
    await page.keyboard.press('Control+z');
  }
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  await expect(page.getByText('3 strums chosen')).toBeVisible();
  await page.keyboard.press('m');
  await expect
    .poll(async () => (await riffs.strums()).map((s) => s.includes('palm mute')))
    .toEqual([true, true, true, false, false]);
  await page.keyboard.press('Control+ArrowUp');
  await expect.poll(async () => (await riffs.strums())[1]).toContain('string 6 fret 6');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');

  // A hand with the mouse hits the digits as often as the blocks around them.
  const digit = (strum: number): Locator =>
    riffs.grid.getByRole('gridcell').nth(strum).locator('.digit').first();
  await digit(0).click();
  await digit(2).click({ modifiers: ['Control'] });
  await digit(4).click({ modifiers: ['Control'] });
  await expect(page.getByText('3 strums chosen')).toBeVisible();
  await digit(0).click();
  await digit(3).click({ modifiers: ['Shift'] });
  await expect(page.getByText('4 strums chosen')).toBeVisible();
});

test('says which pass differs, keeps it as an ending, and writes it behind the riff', async ({
  demoApp,
  page,
}) => {
  const riffs = await openDemo(page, demoApp.url);
  await page.getByRole('radio', { name: 'Riff B' }).click();
  await page.getByRole('radio', { name: 'Verse 1 ×4' }).click();
  const question = page.getByRole('group', { name: /^Pass 4: .*ends early/ });
  // The recording has to be listened through first.
  await expect(question).toBeVisible({ timeout: 60_000 });
  await page.keyboard.press('v');
  await expect(question).toBeHidden();
  const ending = page.getByRole('radio', { name: 'Ending 2, bar 2' });
  await expect(ending).toBeVisible();
  const whole = await riffs.strums();
  await ending.click();
  await expect.poll(async () => (await riffs.strums()).length).toBeLessThan(whole.length);
  await expect(riffs.saved).toBeVisible();
  expect(await riffs.takeAway()).toContain('Verse riff, Ending 2 (pass 4 of Verse 1)');

  await page.keyboard.press('Control+z');
  await expect(question).toBeVisible();
  await page.keyboard.press('y');
  await expect(question).toBeHidden();
  await expect(ending).toBeHidden();
  await page.keyboard.press('Control+z');
});

test('shows what sounds on the neck, ranks ways by it, and keeps an own shape across songs', async ({
  riffApp,
  page,
}) => {
  const shelf = new Shelf(page);
  await shelf.open(riffApp.url);
  const riffs = await shelf.openSong('Four bar riff');
  await riffs.ready();
  // What fluidsynth plays first is a power chord on the low E.
  const ways = page.getByRole('listbox', { name: 'Ways to play it' }).getByRole('option');
  await expect(ways.first()).toContainText('%');
  await expect(page.locator('wn-neck .cells:not([d=""])').last()).toBeVisible();
  const heard = page.locator('wn-strum-panel .notes');
  await expect(heard).toContainText('E2');
  await expect(heard.getByRole('img', { name: 'agrees' }).first()).toBeAttached();

  // Another way is shown before it is written: Escape lets go of it, Enter or another strum takes it.
  const before = await riffs.strums();
  const tried = ways.filter({ hasText: 'Enter writes it' });
  await page.keyboard.press('.');
  await expect(tried).toBeVisible();
  expect(await riffs.strums()).toEqual(before);
  await page.keyboard.press('Escape');
  await expect(tried).toBeHidden();
  await page.keyboard.press('.');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await riffs.strums())[0]).not.toBe(before[0]);
  await page.keyboard.press('Control+z');
  await expect.poll(() => riffs.strums()).toEqual(before);
  // A key that comes before the ways of the strum are there waits for them.
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('.');
  await expect(tried).toBeVisible();
  const shown = /\d+/.exec(await tried.innerText())?.[0];
  await page.keyboard.press('ArrowLeft');
  await expect.poll(async () => (await riffs.strums())[1]).not.toBe(before[1]);
  expect((await riffs.strums())[1]).toContain(`fret ${shown}`);
  expect((await riffs.strums())[0]).toBe(before[0]);
  await page.keyboard.press('Control+z');
  await expect.poll(() => riffs.strums()).toEqual(before);

  // The undo went to the strum that it changed.
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByRole('heading', { name: 'Bar 1, beat 1' })).toBeVisible();
  // The list and the neck are reached by Tab; there the arrows are theirs.
  const neck = page.getByRole('application', { name: /on the neck/ });
  await neck.focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByText(/^String 6, fret 1/)).toBeAttached();
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await riffs.strums())[0]).toContain('string 6 fret 1');
  await page.keyboard.press('Control+z');
  await expect.poll(() => riffs.strums()).toEqual(before);
  const list = page.getByRole('listbox', { name: 'Ways to play it' });
  await page.keyboard.press('Tab');
  await expect(list).toBeFocused();
  await page.keyboard.press('ArrowDown');
  await expect(tried).toBeVisible();
  await page.keyboard.press('Escape');

  await page.getByRole('button', { name: 'Riff …' }).click();
  await page.getByRole('menuitem', { name: 'My shapes …' }).click();
  await page.getByRole('textbox', { name: /Keep what is pressed/ }).fill('Low and wide');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(ways.filter({ hasText: 'Low and wide' }).first()).toBeVisible();
  await page.reload();
  await riffs.ready();
  await expect(ways.filter({ hasText: 'Low and wide' }).first()).toBeVisible();

  // Without a strum the neck shows what the needle stands on: silence at first, then the first chord.
  const panel = page.locator('wn-strum-panel');
  // The first Escape closes the card of keys, the next one lets go of the strum.
  const card = page.getByRole('complementary', { name: 'Keys of this screen' });
  await page.keyboard.press('?');
  await expect(card).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(card).toBeHidden();
  await expect(panel).not.toContainText('at the needle');
  await page.keyboard.press('Escape');
  await expect(panel).toContainText('at the needle');
  await page.keyboard.press('Home');
  await expect(heard).not.toContainText('E2');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Escape');
  await expect(panel).toContainText('at the needle');
  await expect(heard).toContainText('E2');
});

test('a pass that is moved as a whole is offered as that, and kept as the riff so many frets up', async ({
  riffApp,
  page,
}) => {
  // The third pass as a band would play it that takes it up a tone.
  await page.route('**/analysis', async (route) => {
    const analysis = analysisSchema.parse(await (await route.fetch()).json());
    const { beatsS } = analysis;
    const strums = analysis.strums.map((s) =>
      s.timeS > beatsS[32] - 0.1 && s.timeS < beatsS[48] - 0.1
        ? { ...s, midi: s.midi.map((note) => note + 2), name: 'moved' }
        : s,
    );
    await route.fulfill({ json: { ...analysis, strums } });
  });
  const shelf = new Shelf(page);
  await shelf.open(riffApp.url);
  const riffs = await shelf.openSong('Four bar riff');
  await riffs.ready();
  const question = page.getByRole('group', { name: 'Pass 3: The whole pass is played 2 frets up' });
  await expect(question).toBeVisible();
  await page.keyboard.press('v');
  await expect(question).toBeHidden();
  const variations = page.getByRole('radiogroup', { name: 'Variation' });
  await variations.getByRole('radio', { name: '2 frets up' }).click();
  const [first] = await riffs.strums();
  expect(first).toContain('F#5');
  await page.keyboard.press('Control+z');
  await expect(question).toBeVisible();
});

test('gives strums to a second guitar, which keeps its own tuning', async ({ demoApp, page }) => {
  const shelf = new Shelf(page);
  await shelf.open(demoApp.url);
  await expect(shelf.song('Nine Volt Harbour').getByText(/next: as it was heard/)).toBeVisible({
    timeout: 90_000,
  });
  const riffs = await shelf.openSong('Nine Volt Harbour');
  const before = await riffs.strums();
  await riffMenu(page, 'Add a second guitar');
  await expect.poll(() => riffs.strums()).toEqual([]);
  await page.keyboard.press('`');
  await expect.poll(() => riffs.strums()).toEqual(before);
  await page.keyboard.press('~');
  await expect.poll(async () => (await riffs.strums()).length).toBe(before.length - 1);
  await page.keyboard.press('`');
  await expect.poll(() => riffs.strums()).toEqual([before[0]]);

  await page.getByRole('tab', { name: 'Tuning' }).click();
  await page.getByRole('combobox', { name: 'Another tuning' }).click();
  await page.getByRole('option', { name: 'Drop D', exact: true }).click();
  await page.getByRole('tab', { name: 'Riffs' }).click();
  await expect.poll(async () => (await riffs.strums())[0]).not.toBe(before[0]);
  await page.keyboard.press('`');
  await expect.poll(async () => (await riffs.strums())[0]).toBe(before[1]);
  await expect(riffs.saved).toBeVisible();
  expect(await riffs.takeAway()).toContain('Guitar 2: Drop D');
});

test('taps a rhythm to the playing loop, to be filled in', async ({ demoApp, page }) => {
  const riffs = await openDemo(page, demoApp.url);
  await riffs.ready();
  await page.getByRole('radio', { name: 'Riff A' }).click();
  await page.getByRole('button', { name: 'Loop pass 1 bars 1–2' }).click();
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Delete');
  await expect.poll(() => riffs.strums()).toEqual([]);
  await page.keyboard.press('j');
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible();
  const start = await riffs.clock();
  await expect.poll(() => riffs.clock()).toBeGreaterThan(start + 0.3);
  await page.keyboard.press('Space');
  await expect.poll(async () => (await riffs.strums()).length).toBe(1);
  expect(await riffs.strums()).toEqual(['not written yet']);
  await page.keyboard.press('j');
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Play' })).toBeVisible();
  // What sounds there is offered, and a fret can be typed as ever.
  await expect(
    page.getByRole('listbox', { name: 'Ways to play it' }).getByRole('option').first(),
  ).toBeVisible();
  await page.keyboard.press('.');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await riffs.strums())[0]).toContain('string 6 fret');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('5');
  await expect.poll(async () => (await riffs.strums())[0]).toContain('fret 5');
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z');
});
