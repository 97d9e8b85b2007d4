/** Riffs of many strums and many passes: readable at any width, walked by keys, varied as the player decides. */
import { expect, type Locator, type Page } from '@playwright/test';
import { openSongSchema, type OpenSong } from '@wild-needle/contract';
import { test } from '../support/app';
import { Shelf, type Riffs } from '../support/pages';

type SongDocument = OpenSong['document'];
type Strum = SongDocument['riffs'][number]['strums'][number];

const SIXTEENTH = 240;
/** A sign for each sixteenth: O open chord, m muted, x dead, - rings on, a digit is the fret of a chord. */
const BARS = ['Ommm3mm3mm5-3mmm', 'Ommm3mm3mm6-5-xx', 'O3O5O7O5O3O2O1OO', 'Ommmcmm8mm5-3mmm'];

function strumsOf(bars: readonly string[], model: Strum): Strum[] {
  return Array.from(bars.join('')).flatMap((sign, i) => {
    if (sign === '-') return [];
    const fret = sign === 'c' ? 12 : Number.isNaN(Number(sign)) ? 0 : Number(sign);
    const strings = sign === 'm' ? [6, 5] : [6, 5, 4];
    return [
      {
        ...model,
        id: `dense-${i}`,
        startTicks: SIXTEENTH * i,
        durationTicks: SIXTEENTH,
        frets: strings.map((string) => ({ string, fret })),
        palmMute: sign === 'm',
        dead: sign === 'x',
      },
    ];
  });
}

/** Opens the demo song whose second riff is what `change` makes of the document. */
async function openDense(
  page: Page,
  url: string,
  change: (document: SongDocument) => SongDocument,
): Promise<Riffs> {
  const shelf = new Shelf(page);
  await shelf.open(url);
  const riffs = await shelf.openSong('Salt on the Wire');
  const songId = new URL(page.url()).pathname.split('/')[2];
  const song = openSongSchema.parse(await (await page.request.get(`${url}/api/songs/${songId}`)).json());
  const saved = await page.request.put(`${url}/api/songs/${songId}/document`, {
    data: { baseRevision: song.revision, document: change(song.document) },
  });
  expect(saved.ok(), await saved.text()).toBe(true);
  await page.reload();
  await riffs.ready();
  await page.getByRole('radio', { name: 'Riff B' }).click();
  return riffs;
}

function dense(document: SongDocument, bars: readonly string[] = BARS): SongDocument {
  const riff = document.riffs[1];
  const strums = strumsOf(bars, document.riffs[2].strums[0]);
  const written = {
    ...riff,
    bars: bars.map(() => ({ beats: 4, unit: 4 as const })),
    strums,
    variations: [],
    groups: [],
    barNotes: [],
  };
  return {
    ...document,
    riffs: document.riffs.map((r) => (r === riff ? written : r)),
    sections: document.sections.map((s) =>
      s.riffId === riff.id
        ? { ...s, answers: [], passes: Math.max(1, Math.floor((s.passes * riff.bars.length) / bars.length)) }
        : s,
    ),
  };
}

/** Texts of the tab that stand on each other on screen. */
async function overlaps(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const kinds = ['.names wn-chord-name', 'text.digit', '.ruler b', '.ruler .bar-number'];
    const boxes = kinds.flatMap((kind) =>
      Array.from(document.querySelectorAll(kind)).map((element) => {
        const range = document.createRange();
        range.selectNodeContents(element);
        const { left, right, top, bottom } = element.matches('text')
          ? element.getBoundingClientRect()
          : range.getBoundingClientRect();
        // Letters fill their line by two thirds.
        const air = (bottom - top) / 6;
        return { text: element.textContent.trim(), left, right, top: top + air, bottom: bottom - air };
      }),
    );
    return boxes.flatMap((a, i) =>
      boxes
        .slice(i + 1)
        .filter(
          (b) =>
            Math.min(a.right, b.right) - Math.max(a.left, b.left) > 0.5 &&
            Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top) > 0.5,
        )
        .map((b) => `${a.text} and ${b.text}`),
    );
  });
}

test('keeps strums apart at every width: whole bars in view, turned by keys, chips, wheel and what is chosen', async ({
  demoApp,
  page,
}) => {
  const riffs = await openDense(page, demoApp.url, (document) => dense(document));
  const words = page.getByText(/^Bars? \d.* of 4$/);
  for (const [width, said] of [
    [1000, 'Bar 1 of 4'],
    [1280, 'Bars 1 to 2 of 4'],
    [1920, 'Bars 1 to 3 of 4'],
  ] as const) {
    await page.setViewportSize({ width, height: 800 });
    await expect(words).toHaveText(said);
    for (let turn = 0; turn < 3; turn++) {
      expect(await overlaps(page), `${width} px, page ${turn + 1}`).toEqual([]);
      await page.keyboard.press('PageDown');
    }
    for (let turn = 0; turn < 3; turn++) await page.keyboard.press('PageUp');
    await expect(words).toHaveText(said);
  }

  await page.setViewportSize({ width: 1280, height: 800 });
  await expect(words).toHaveText('Bars 1 to 2 of 4');
  await page.getByRole('button', { name: 'Bar 4', exact: true }).click();
  await expect(words).toHaveText('Bars 3 to 4 of 4');
  await page.mouse.move(600, 400);
  await page.mouse.wheel(0, -100);
  await expect(words).toHaveText('Bars 1 to 2 of 4');
  // What is chosen turns them as well.
  await riffs.grid
    .getByRole('gridcell')
    .last()
    .click({ position: { x: 5, y: 40 } });
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowRight');
  await expect(words).toHaveText('Bars 3 to 4 of 4');
  // The panel gave way for a bar more; its notch gives it back.
  await page.keyboard.press('F6');
  await expect(words).toHaveText('Bar 3 of 4');
});

test('in a small window every button beside the panel can be pressed, and what is said stands over the deck', async ({
  demoApp,
  page,
}) => {
  await page.setViewportSize({ width: 1024, height: 768 });
  const riffs = await openDense(page, demoApp.url, (document) => dense(document));
  const menu = page.getByRole('button', { name: 'Riff …' });
  const right = async (button: Locator): Promise<number> => {
    const box = (await button.boundingBox())!;
    return box.x + box.width;
  };
  const panel = page.locator('wn-strum-panel');
  await expect(panel).toBeVisible();
  expect(await right(menu)).toBeLessThanOrEqual((await panel.boundingBox())!.x);
  // Its name is longest while a loop is set.
  await page.keyboard.press('l');
  const measure = page.getByRole('button', { name: 'Measure the loop again' });
  await expect(measure).toBeVisible();
  expect(await right(menu)).toBeLessThanOrEqual((await panel.boundingBox())!.x);

  await menu.click();
  await page.getByRole('menuitem', { name: 'One bar more' }).click();
  await riffs.grid.press('Control+z');
  const said = page.locator('mat-snack-bar-container');
  await expect(said).toContainText('Undone');
  await expect
    .poll(async () => {
      const [above, deck] = [await said.boundingBox(), await page.locator('wn-deck').boundingBox()];
      return above!.y + above!.height <= deck!.y;
    })
    .toBe(true);
});

test('forty passes are walked by keys, and the list goes along', async ({ demoApp, page }) => {
  await openDense(page, demoApp.url, (document) => {
    const first = document.sections[0];
    const { bars } = document.riffs[1];
    const room = Math.floor((document.grid.bars.length - first.startBar) / bars.length);
    return {
      ...document,
      sections: [{ ...first, riffId: document.riffs[1].id, passes: Math.min(40, room), answers: [] }],
    };
  });
  const list = page.getByRole('list', { name: 'Passes in the recording' });
  const sounding = list.locator('.pass.sounding');
  const inSight = (): Promise<boolean> =>
    sounding.evaluate((row) => {
      const [box, around] = [row.getBoundingClientRect(), row.closest('.passes')!.getBoundingClientRect()];
      return box.top >= around.top - 1 && box.bottom <= around.bottom + 1;
    });
  const passes = await list.getByRole('listitem').count();
  expect(passes).toBeGreaterThan(15);
  for (let pass = 1; pass <= passes; pass++) {
    await page.keyboard.press('ArrowDown');
    await expect(sounding.locator('.number .display')).toHaveText(String(pass));
    await expect.poll(inSight).toBe(true);
  }
});

test('any pass plays any variation: made from bars, named, given to a pass and taken back', async ({
  demoApp,
  page,
}) => {
  const riffs = await openDense(page, demoApp.url, (document) => dense(document));
  await page.getByRole('radio', { name: 'Verse 1 ×2' }).click();
  await page.keyboard.press('ArrowRight');
  await page.getByRole('button', { name: 'Riff …' }).click();
  await page.getByRole('menuitem', { name: 'Variation …' }).click();
  await page.getByRole('menuitem', { name: 'New variation of bar 1' }).click();
  const made = page.getByRole('radio', { name: 'Variation 1, bar 1' });
  await expect(made).toBeChecked();
  await expect(page.locator('wn-written-row .varied')).toBeVisible();

  await page.getByRole('button', { name: 'Riff …' }).click();
  await page.getByRole('menuitem', { name: 'Variation …' }).click();
  await page.getByRole('textbox', { name: 'Name of this variation' }).fill('With a push');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('radio', { name: 'With a push, bar 1' })).toBeChecked();
  const [first] = await riffs.strums();
  await page.keyboard.press('x');
  await expect.poll(async () => (await riffs.strums()).join()).toContain('dead stroke');
  await page.keyboard.press('x');
  await expect.poll(async () => (await riffs.strums())[0]).toBe(first);
  // Beside its bars the riff itself is written, and that is said.
  await page.keyboard.press('Shift+ArrowRight');
  for (let i = 0; i < 16; i++) await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Control+ArrowUp');
  await expect(page.getByText('Outside of “With a push”: written in the riff itself')).toBeVisible();

  await page.getByRole('button', { name: 'Decide on pass 2' }).click();
  await page.getByRole('menuitem', { name: 'Plays “With a push, bar 1”' }).click();
  const pass = page.getByRole('listitem').filter({ has: page.getByRole('button', { name: /^Loop pass 2/ }) });
  await expect(pass.locator('.variation')).toHaveText('With a push');
  await page.getByRole('button', { name: 'Decide on pass 2' }).click();
  await page.getByRole('menuitem', { name: 'Not decided: take the answer back' }).click();
  await expect(pass.locator('.variation')).toBeHidden();
});

test('taps write into the riff that was chosen, and undo outlives a reload and says what it undid', async ({
  demoApp,
  page,
}) => {
  const riffs = await openDense(page, demoApp.url, (document) => dense(document));
  const songId = new URL(page.url()).pathname.split('/')[2];
  const song = openSongSchema.parse(
    await (await page.request.get(`${demoApp.url}/api/songs/${songId}`)).json(),
  );
  const { grid, sections } = song.document;
  const borderS = grid.beatsS[grid.bars[sections[2].startBar].beat];
  const strip = page.getByRole('slider', { name: 'Place in the recording' });
  const clockAt = async (x: number): Promise<number> => {
    await strip.click({ position: { x, y: 20 } });
    return riffs.clock();
  };
  // Four seconds before the next section.
  const [early, late] = [await clockAt(200), await clockAt(800)];
  await clockAt(200 + (600 * (borderS - 4 - early)) / (late - early));
  await page.getByRole('button', { name: 'Riff …' }).click();
  await page.getByRole('menuitem', { name: 'New riff' }).click();
  await expect(page.getByText('Play the loop, then type a fret')).toBeVisible();
  await page.keyboard.press('j');
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible();
  const start = await riffs.clock();
  await expect.poll(() => riffs.clock()).toBeGreaterThan(start + 0.3);
  await page.keyboard.press('Space');
  await expect.poll(() => riffs.strums()).toEqual(['not written yet']);
  await expect(page.getByRole('radio', { name: 'Riff D' })).toBeChecked();
  await page.keyboard.press('j');
  // It plays on into another section: what was tapped is filled in next, and stays.
  await expect.poll(() => riffs.clock()).toBeGreaterThan(borderS + 0.3);
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Play' })).toBeVisible();
  await page.keyboard.press('5');
  await expect.poll(async () => (await riffs.strums()).join()).toMatch(/fret 5$/);
  await expect(page.getByRole('radio', { name: 'Riff D' })).toBeChecked();
  await expect(riffs.saved).toBeVisible();

  await page.reload();
  await riffs.ready();
  await page.getByRole('radio', { name: 'Riff A' }).click();
  await expect(page.getByRole('button', { name: 'Undo' })).toBeEnabled();
  await page.keyboard.press('Control+z');
  await expect(page.getByText(/Undone: Riff D, bar/)).toBeVisible();
  await expect(page.getByRole('radio', { name: 'Riff D' })).toBeChecked();
  await expect.poll(() => riffs.strums()).toEqual(['not written yet']);
});

test('four bars of sixteenths are written from nothing in under sixty keys', async ({ demoApp, page }) => {
  const riffs = await openDense(page, demoApp.url, (document) => document);
  await page.getByRole('button', { name: 'Riff …' }).click();
  await page.getByRole('menuitem', { name: 'New riff' }).click();
  for (let bar = 2; bar < 4; bar++) {
    await page.getByRole('button', { name: 'Riff …' }).click();
    await page.getByRole('menuitem', { name: 'One bar more' }).click();
  }
  let keys = 6;
  const press = async (text: string): Promise<void> => {
    for (const key of text.split(' ')) await page.keyboard.press(key);
    keys += text.split(' ').length;
  };
  // Sixteenths; a bar of open chords with three muted strums behind each, then the bar again, three times.
  await press('Alt+i 0 Shift+Digit2 Enter m Enter Enter');
  await press('i 3 Shift+Digit2 Enter m Enter Enter i 5 Shift+Digit2 Enter m Enter Enter');
  await press('i 3 Shift+Digit2 Enter m Enter Enter');
  for (let bar = 1; bar < 4; bar++) await press('Shift+Enter');
  await expect.poll(async () => (await page.getByText(/^4 bars, 64 strums/).count()) > 0).toBe(true);
  expect((await riffs.strums())[0]).toContain('C#5');
  expect(keys).toBeLessThan(60);
});
