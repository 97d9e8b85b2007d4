/** The form of a song and its beats, put right by hand. */
import { readFileSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';
import { openSongSchema } from '@wild-needle/contract';
import { test } from '../support/app';
import { listenIn } from '../support/loudspeaker';
import { Shelf } from '../support/pages';

/** '4' of 'B ×4'. */
function passesOf(row: string): string | undefined {
  return /×(\d+)/.exec(row)?.[1];
}

async function openSections(page: Page, url: string, title = 'Nine Volt Harbour'): Promise<void> {
  const shelf = new Shelf(page);
  await shelf.open(url);
  const riffs = await shelf.openSong(title);
  await riffs.ready();
  await page.getByRole('tab', { name: 'Sections' }).click();
  await expect(page.getByRole('table')).toContainText('Passes compared');
}

/** The analysis as it comes, but for what it says of the sections. */
async function changeAnalysis(page: Page, change: (sections: readonly object[]) => object[]): Promise<void> {
  await page.route('**/api/recordings/*/analysis', async (route) => {
    const answer = await route.fetch();
    const analysis = (await answer.json()) as { sections: object[] };
    await route.fulfill({ response: answer, json: { ...analysis, sections: change(analysis.sections) } });
  });
}

async function savedGrid(page: Page, url: string): Promise<{ beats: number; bars: number }> {
  const songId = new URL(page.url()).pathname.split('/')[2];
  const answer: unknown = await (await page.request.get(`${url}/api/songs/${songId}`)).json();
  const { grid } = openSongSchema.parse(answer).document;
  return { beats: grid.beatsS.length, bars: grid.bars.length };
}

test('repairs a grid at half the tempo by one key, and every strum stays where it sounds', async ({
  demoApp,
  page,
}) => {
  await openSections(page, demoApp.url);
  const before = await savedGrid(page, demoApp.url);
  // The error: the program has taken two beats for one.
  await page.keyboard.press('d');
  await expect(page.getByText(`${2 * before.bars} bars`)).toBeVisible();
  // The repair.
  await page.keyboard.press('h');
  await expect(page.getByText(`, ${before.bars} bars`)).toBeVisible();
  await expect(page.getByText('Saved')).toBeVisible();
  expect((await savedGrid(page, demoApp.url)).bars).toBe(before.bars);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Saved')).toBeVisible();
  expect(await savedGrid(page, demoApp.url)).toEqual(before);
});

test('splits, renames and joins sections, and keeps them over a reload', async ({ demoApp, page }) => {
  await openSections(page, demoApp.url);
  const rows = page.locator('tbody tr');
  const count = await rows.count();
  await rows.nth(1).click();
  const name = page.getByRole('textbox', { name: 'Name of the section' });
  await name.fill('First verse');
  await name.press('Enter');
  // At its own start there is nothing to split, and that is said.
  await page.keyboard.press('i');
  const said = page.locator('mat-snack-bar-container');
  await expect(said).toContainText('The needle is not inside of “First verse”');
  // In the middle of a pass: the riff goes on over the cut.
  await page.keyboard.press('Control+Shift+ArrowRight');
  await page.keyboard.press('i');
  await expect(rows).toHaveCount(count + 1);
  await expect(rows.nth(2)).toContainText('First verse, second part');
  await expect(page.getByText('Saved')).toBeVisible();
  await page.reload();
  await expect(rows.nth(1)).toContainText('First verse');
  await rows.nth(1).click();
  await page.keyboard.press('j');
  await expect(rows).toHaveCount(count);
  await expect(page.getByLabel('Order of play')).toContainText('First verse');
});

test('choosing the section that the needle is in leaves the needle there: it is split where it was meant', async ({
  demoApp,
  page,
}) => {
  await openSections(page, demoApp.url);
  const rows = page.locator('tbody tr');
  const count = await rows.count();
  const clock = page.locator('wn-deck .place .mono');
  const start = await clock.innerText();
  await rows.nth(1).click();
  await expect(clock).not.toHaveText(start);
  for (const _ of [1, 2]) {
    const before = await clock.innerText();
    await page.keyboard.press('Control+Shift+ArrowRight');
    await expect(clock).not.toHaveText(before);
  }
  const at = await clock.innerText();
  await rows.nth(1).click();
  expect(await clock.innerText()).toBe(at);
  await page.keyboard.press('i');
  await expect(rows).toHaveCount(count + 1);
  await rows.nth(0).click();
  await expect(clock).not.toHaveText(at);
});

test('takes the sections away as a label track and brings them in again', async ({ demoApp, page }) => {
  await openSections(page, demoApp.url);
  const rows = page.locator('tbody tr');
  const count = await rows.count();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page
      .getByRole('button', { name: 'Export, import' })
      .click()
      .then(() => page.getByRole('menuitem', { name: 'Label track', exact: true }).click()),
  ]);
  const text = readFileSync(await download.path(), 'utf8');
  expect(text.trim().split('\n')).toHaveLength(count);
  const renamed = text.replace(/\t[^\t\n]*\n/, '\tOpening\n');
  await page
    .getByLabel('Label track', { exact: true })
    .setInputFiles({ name: 'sections.txt', mimeType: 'text/plain', buffer: Buffer.from(renamed) });
  await expect(rows.first()).toContainText('Opening');
  await expect(rows).toHaveCount(count);
  await page
    .getByLabel('Label track', { exact: true })
    .setInputFiles({ name: 'list.txt', mimeType: 'text/plain', buffer: Buffer.from('verse one') });
  await expect(page.getByText(/This label track can't be used: line 1/)).toBeVisible();
});

test('taps never take back what was done before', async ({ demoApp, page }) => {
  const loudspeaker = await listenIn(page);
  await openSections(page, demoApp.url);
  const rows = page.locator('tbody tr');
  await rows.first().click();
  const name = page.getByRole('textbox', { name: 'Name of the section' });
  const before = await savedGrid(page, demoApp.url);
  await page.keyboard.press('Space');
  await loudspeaker.listenFor(0.5);
  const tapped = page.getByText(/^Tapped from/);
  await page.getByRole('radio', { name: 'Beats and bars' }).click();
  for (let i = 0; i < 6; i++) {
    await page.keyboard.press('t');
    await loudspeaker.listenFor(0.5);
  }
  await expect(tapped).toBeVisible();
  await page.getByRole('radio', { name: 'Section', exact: true }).click();
  await name.fill('Way in');
  await name.press('Enter');
  // All taps of one go are one step; the name is another, and so is what is tapped after it.
  await page.keyboard.press('t');
  await page.keyboard.press('Space');
  await expect(rows.first()).toContainText('Way in');
  await page.keyboard.press('Control+z');
  await expect(rows.first()).not.toContainText('Way in');
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Saved')).toBeVisible();
  expect(await savedGrid(page, demoApp.url)).toEqual(before);
});

test('drags a bar line and the end of a section on the zoomed strip', async ({ demoApp, page }) => {
  await openSections(page, demoApp.url);
  const strip = page.getByRole('slider', { name: 'Place in the recording' });
  const box = (await strip.boundingBox())!;
  await page.mouse.move(box.x + 300, box.y + 20);
  for (let i = 0; i < 6; i++) await page.mouse.wheel(0, -100);
  await expect(page.getByRole('button', { name: /whole song/ })).toBeVisible();

  const line = page.getByTitle(/^Bar line \d+: drag/).nth(1);
  const number = Number(/\d+/.exec((await line.getAttribute('title')) ?? '')?.[0]);
  const songId = new URL(page.url()).pathname.split('/')[2];
  const grid = async () => {
    const answer: unknown = await (await page.request.get(`${demoApp.url}/api/songs/${songId}`)).json();
    return openSongSchema.parse(answer).document.grid;
  };
  const before = await grid();
  // Zooming is over when the line stands still.
  await line.hover();
  const at = (await line.boundingBox())!;
  await page.mouse.move(at.x + 4, at.y + 20);
  await page.mouse.down();
  await page.mouse.move(at.x + 12, at.y + 20, { steps: 4 });
  await page.mouse.up();
  await expect.poll(async () => (await grid()).beatsS).not.toEqual(before.beatsS);
  const moved = await grid();
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await grid()).beatsS).toEqual(before.beatsS);
  const beat = before.bars[number - 1].beat;
  expect(moved.beatsS[beat]).toBeGreaterThan(before.beatsS[beat]);
  expect(moved.beatsS[beat] - before.beatsS[beat]).toBeLessThan(0.5);
  await page.getByRole('button', { name: /whole song/ }).click();

  // A section of several passes gives some of them back.
  const rows = page.locator('tbody tr');
  const texts = await rows.allInnerTexts();
  const row = rows.nth(texts.findIndex((text) => Number(passesOf(text)) > 1));
  const passes = passesOf(await row.innerText());
  const name = (await row.locator('.name').innerText()).trim();
  const end = (await page.getByTitle(`End of ${name}`).first().boundingBox())!;
  await page.mouse.move(end.x + 4, end.y + 10);
  await page.mouse.down();
  await page.mouse.move(end.x - 110, end.y + 10, { steps: 5 });
  await page.mouse.up();
  await expect.poll(async () => passesOf(await row.innerText())).not.toBe(passes);
  await page.keyboard.press('Control+z');
});

test('says how the guitar sounds, makes a bar free time, and refuses where a section plays', async ({
  demoApp,
  page,
}) => {
  await openSections(page, demoApp.url);
  const rows = page.locator('tbody tr');
  await rows.nth(1).click();
  const tone = page.getByRole('combobox', { name: 'Sound of the guitar here' });
  await tone.fill('clean');
  await tone.blur();
  await expect(rows.nth(1)).toContainText('clean');
  await expect(rows.nth(1)).toContainText(/minor|major/);
  await page.keyboard.press('x');
  await expect(page.getByText(/is played here: shorten or move it first/)).toBeVisible();
  await page.getByRole('radio', { name: 'Beats and bars' }).click();
  await page.getByRole('button', { name: 'Pick-up, strums …' }).click();
  await page.getByRole('menuitem', { name: 'strums stay in the bar' }).click();
  await page.keyboard.press('o');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(rows.nth(1)).not.toContainText('clean');
});

test('gives the odd pass a name, and takes the road map away as a picture', async ({ demoApp, page }) => {
  await openSections(page, demoApp.url, 'Salt on the Wire');
  const verse = page.locator('tbody tr').nth(1);
  await expect(verse).toContainText('The last pass ends early');
  await verse.click();
  // What differs in it is told one by one where it is answered.
  await expect(page.locator('wn-section-panel')).toContainText(/differs\. Bar 2, .*: ends early/);
  const name = page.getByRole('textbox', { name: 'Name of what this pass plays' });
  // The name that is proposed can be read whole.
  expect(
    await name.evaluate((field: HTMLInputElement) => {
      const style = getComputedStyle(field);
      const canvas = document.createElement('canvas').getContext('2d')!;
      canvas.font = style.font;
      const room =
        field.clientWidth - Number.parseFloat(style.paddingLeft) - Number.parseFloat(style.paddingRight);
      return room - canvas.measureText(field.placeholder).width;
    }),
  ).toBeGreaterThanOrEqual(0);
  await name.fill('Stop');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(verse).toContainText('The last pass plays “Stop”');
  // Back, and by key: the riff whatever was heard.
  await page.keyboard.press('Control+z');
  await expect(verse).toContainText('ends early');
  await page.keyboard.press('y');
  await expect(verse).toContainText('All passes agree');

  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export, import' }).click();
  await page.getByRole('menuitem', { name: 'Road map as a picture' }).click();
  const file = await download;
  expect(file.suggestedFilename()).toBe('salt-on-the-wire.svg');
  const picture = readFileSync(await file.path(), 'utf8');
  const table = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export, import' }).click();
  await page.getByRole('menuitem', { name: 'Table (Markdown)' }).click();
  const chart = await table;
  expect(chart.suggestedFilename()).toBe('salt-on-the-wire.md');
  const [head, , intro] = readFileSync(await chart.path(), 'utf8').split('\n');
  expect(head).toBe('| Section | Starts | Ends | Bars | Riff | Moved | Passes |');
  expect(intro).toMatch(/^\| Intro \| \d:\d\d\.\d \|/);

  await page.setContent(picture);
  await expect(page.locator('svg')).toContainText('Verse 1, moved up');
  await expect(page.locator('svg')).toContainText('Intro A×2, Verse 1 B×4');
});

test('says how sure a suggested start is, moves it, or takes the word of the user', async ({
  demoApp,
  page,
}) => {
  await changeAnalysis(page, (sections) =>
    sections.map((section, i) => (i === 1 ? { ...section, startProbability: 0.41, orElseBars: 2 } : section)),
  );
  await openSections(page, demoApp.url);
  const row = page.locator('tbody tr').nth(1);
  const start = await row.locator('.start').innerText();
  const doubt = row.getByRole('img', {
    name: /We are not sure where it starts \(41 %\); it may be 2 bars later/,
  });
  await expect(doubt).toBeVisible();
  await row.click();
  await page.getByRole('button', { name: 'Begin there' }).click();
  await expect(row.locator('.start')).not.toHaveText(start);
  await expect(doubt).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(doubt).toHaveCount(1);
  await page.keyboard.press('y');
  await expect(doubt).toHaveCount(0);
  await expect(row.locator('.start')).toHaveText(start);
});

test('a click on the strip goes there, also on a bar line and on the edge of a section', async ({
  demoApp,
  page,
}) => {
  await openSections(page, demoApp.url, 'Salt on the Wire');
  const clock = page.locator('wn-deck .place .mono');
  const edge = page.getByTitle('Start of Verse 1, moved up', { exact: true });
  await edge.click();
  await expect(clock).toHaveText(/0:22\.[2-5]/);
  const line = page.getByTitle(/^Bar line 9:/);
  await line.click();
  await expect(clock).toHaveText(/0:15\.[0-3]/);
});

test('a name is taken back by Escape, a key is set for one section, and a part is removed by a second press', async ({
  demoApp,
  page,
}) => {
  await openSections(page, demoApp.url, 'Salt on the Wire');
  const rows = page.locator('tbody tr');
  const count = await rows.count();
  await rows.nth(1).click();
  const name = page.getByRole('textbox', { name: 'Name of the section' });
  await name.fill('Something else');
  await name.press('Escape');
  await expect(name).toHaveValue('Verse 1');
  await expect(name).not.toBeFocused();
  await page.getByRole('combobox', { name: 'Key of this section' }).selectOption('D minor');
  await expect(rows.nth(1)).toContainText('D minor');
  await expect(rows.nth(0)).toContainText('C minor');
  // Asked once and left; then meant.
  await page.locator('section.list').click({ position: { x: 300, y: 250 } });
  await page.keyboard.press('Delete');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Delete');
  await expect(page.getByText('Press again to remove it')).toBeVisible();
  await expect(rows).toHaveCount(count);
  await page.keyboard.press('Delete');
  await expect(rows).toHaveCount(count - 1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(rows).toHaveCount(count);
  await page.getByRole('button', { name: 'Redo' }).click();
  await expect(rows).toHaveCount(count - 1);
});

test('a free part stands without a riff, and labels over nothing ask what is played', async ({
  demoApp,
  page,
}) => {
  await openSections(page, demoApp.url, 'Salt on the Wire');
  const rows = page.locator('tbody tr');
  await rows.nth(3).click();
  await page.getByRole('radio', { name: 'No riff' }).click();
  await expect(rows.nth(3)).toContainText('No riff here');
  await page.keyboard.press('Delete');
  await page.keyboard.press('Delete');
  await page.getByLabel('Label track', { exact: true }).setInputFiles({
    name: 's.txt',
    mimeType: 'text/plain',
    buffer: Buffer.from('0.6\t7.8\tWay in\n29.7\t36.9\tTalk\n'),
  });
  await expect(rows).toHaveCount(2);
  await rows.nth(1).click();
  await expect(page.getByText('Nothing was written for these bars. What is played?')).toBeVisible();
  await page.getByRole('button', { name: 'A new riff' }).click();
  await expect(rows.nth(1)).toContainText('D');
});

test('a part in which nothing comes round is written as it was heard when that is asked for', async ({
  demoApp,
  page,
}) => {
  await changeAnalysis(page, (sections) => sections.map((section) => ({ ...section, returns: false })));
  await openSections(page, demoApp.url, 'Salt on the Wire');
  const rows = page.locator('tbody tr');
  // Bars that nothing is written for.
  await rows.nth(3).click();
  await page.keyboard.press('Delete');
  await page.keyboard.press('Delete');
  await page.getByLabel('Label track', { exact: true }).setInputFiles({
    name: 's.txt',
    mimeType: 'text/plain',
    buffer: Buffer.from('0.6\t7.8\tWay in\n29.7\t36.9\tSolo\n'),
  });
  await expect(rows).toHaveCount(2);
  const solo = rows.nth(1);
  await solo.click();
  await expect(page.getByText('Nothing heard here comes round')).toBeVisible();
  await page.getByRole('button', { name: 'Write it as heard' }).click();
  // Only what is written can be checked.
  await expect(solo).toContainText('0 %');
  await expect(solo).toContainText('One pass');
});
