/** Every screen in both themes against the rules of axe-core (WCAG 2.2, levels A and AA, and its best practices). */
import { mkdirSync } from 'node:fs';
import { AxeBuilder } from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';
import { test } from '../support/app';
import { renderRiff } from '../support/fluidsynth-riff';
import { Riffs, Shelf } from '../support/pages';

async function problems(page: Page): Promise<string[]> {
  const { violations } = await new AxeBuilder({ page })
    .options({ rules: { 'label-content-name-mismatch': { enabled: true } } })
    .analyze();
  // Digits of a drawn strum are no name: it is called by its chord, strings and frets; figures of a plan are spoken in words. Accidentals are drawn, and read.
  const isDrawn = (id: string, target: string): boolean =>
    id === 'label-content-name-mismatch' && /^#(strum|doubt|practice)-/.test(target);
  return violations.flatMap(({ id, nodes }) =>
    nodes
      .filter((node) => !isDrawn(id, node.target.join(' ')))
      .map((node) => `${id}: ${node.target.join(' ')}: ${node.failureSummary?.split('\n')[1]?.trim() ?? ''}`),
  );
}

for (const theme of ['light', 'dark'] as const) {
  test(`every screen can be read and reached by everybody, ${theme}`, async ({ demoApp, page }) => {
    await page.emulateMedia({ colorScheme: theme, reducedMotion: 'reduce' });
    const shelf = new Shelf(page);
    await shelf.open(demoApp.url);
    await expect(shelf.song('Salt on the Wire')).toBeVisible();
    expect.soft(await problems(page), 'songs').toEqual([]);
    await page.getByRole('button', { name: 'Which input' }).click();
    await page.getByRole('menuitem', { name: 'Simulated player' }).click();
    await expect(page.getByText('A simulated player plays.')).toBeVisible();
    expect.soft(await problems(page), 'record').toEqual([]);
    await page.getByRole('button', { name: 'Input off' }).click();

    const riffs = await shelf.openSong('Salt on the Wire');
    await riffs.ready();
    await expect(riffs.grid.getByRole('gridcell').first()).toBeVisible();
    expect.soft(await problems(page), 'riffs').toEqual([]);
    await page.keyboard.press('?');
    expect.soft(await problems(page), 'keys').toEqual([]);
    await page.keyboard.press('Escape');
    await page.keyboard.press(':');
    await expect(page.getByRole('heading', { name: 'Foot pedals' })).toBeVisible();
    expect.soft(await problems(page), 'pedals').toEqual([]);
    await page.keyboard.press('Escape');

    await page.getByRole('tab', { name: 'Sections' }).click();
    await page.locator('tbody tr').nth(1).click();
    expect.soft(await problems(page), 'sections').toEqual([]);
    await page.getByRole('radio', { name: 'Beats and bars' }).click();
    expect.soft(await problems(page), 'beats').toEqual([]);

    await page.getByRole('tab', { name: 'Tuning' }).click();
    await expect(page.getByText('cents sharp')).toBeVisible();
    expect.soft(await problems(page), 'tuning').toEqual([]);

    await page.getByRole('tab', { name: 'Check', exact: true }).click();
    await expect(page.getByText(/to settle/)).toBeVisible();
    await expect(page.getByText(/Comparing/)).toHaveCount(0);
    expect.soft(await problems(page), 'check').toEqual([]);
    await page.keyboard.press('o');
    // The last of the list has a name to guess.
    for (let i = 0; i < 8; i++) await page.keyboard.press('ArrowDown');
    await expect(page.getByText('Right by ear')).toBeVisible();
    expect.soft(await problems(page), 'ear first').toEqual([]);
    await page.keyboard.press('o');

    await page.getByRole('tab', { name: 'Sheet', exact: true }).click();
    await expect(page.getByRole('article').first()).toBeVisible();
    expect.soft(await problems(page), 'sheet').toEqual([]);

    await page.getByRole('link', { name: 'Versions of this song' }).click();
    await expect(page.getByRole('option').first()).toBeVisible();
    await page.keyboard.press('ArrowDown');
    await expect(page.getByRole('button', { name: 'Bring this version back' })).toBeVisible();
    expect.soft(await problems(page), 'versions').toEqual([]);

    await page.getByRole('tab', { name: 'Practice', exact: true }).click();
    await expect(page.getByRole('option', { selected: true })).toBeVisible();
    expect.soft(await problems(page), 'practice').toEqual([]);
    await page.getByRole('button', { name: 'Simulated player' }).click();
    await page.getByRole('button', { name: 'How the stair goes' }).click();
    await expect(page.getByRole('heading', { name: 'The stair' })).toBeVisible();
    expect.soft(await problems(page), 'the stair').toEqual([]);
    await page.getByRole('button', { name: 'Done' }).click();
  });
}

test('a recording becomes a text tab by the keyboard alone', async ({ app, page }, info) => {
  mkdirSync(info.outputDir, { recursive: true });
  const recording = renderRiff(info.outputDir);
  const shelf = new Shelf(page);
  const riffs = new Riffs(page);
  // Asked for before the page comes: taking over the chooser is a message of its own, which a key press can overtake.
  const chooser = page.waitForEvent('filechooser');
  await shelf.open(app.url);
  await page.keyboard.press('n');
  await (await chooser).setFiles(recording);
  await expect(shelf.song('Four bar riff').getByText(/next: as it was heard/)).toBeVisible({
    timeout: 90_000,
  });
  // Carries on where the song is next.
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Which tuning?' })).toBeVisible();
  await page.keyboard.press('1');
  await page.keyboard.press('F9');
  const rows = page.locator('tbody tr');
  await expect(rows.first()).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Control+Shift+ArrowRight');
  await page.keyboard.press('F9');
  await expect(riffs.grid.getByRole('gridcell').first()).toBeVisible();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('c');
  await expect(page.getByRole('tab', { name: /Riffs, \d+ % of the strums checked/ })).toBeVisible();

  const reach = async (name: string): Promise<void> => {
    const target = page.getByRole('button', { name, exact: true });
    for (let i = 0; i < 60 && !(await target.evaluate((b) => b === document.activeElement)); i++)
      await page.keyboard.press('Tab');
    await expect(target).toBeFocused();
  };
  await reach('Export');
  await page.keyboard.press('Enter');
  const item = page.getByRole('menuitem', { name: 'Text tab as a file' });
  await expect(item).toBeVisible();
  for (let i = 0; i < 10 && !(await item.evaluate((b) => b === document.activeElement)); i++)
    await page.keyboard.press('ArrowDown');
  const download = page.waitForEvent('download');
  await page.keyboard.press('Enter');
  expect((await download).suggestedFilename()).toBe('four-bar-riff.txt');
});

test('the keyboard alone gets into the tab, through its strings and out again to the passes and the deck', async ({
  demoApp,
  page,
}) => {
  const shelf = new Shelf(page);
  await shelf.open(demoApp.url);
  const riffs = await shelf.openSong('Salt on the Wire');
  await riffs.ready();
  await riffs.grid.focus();
  const isInTab = (): Promise<boolean> => riffs.grid.evaluate((grid) => grid === document.activeElement);
  const strings = await page.locator('.labels span').count();
  for (let i = 0; i <= strings && (await isInTab()); i++) await page.keyboard.press('Tab');
  expect(await isInTab()).toBe(false);
  const pass = page.getByRole('button', { name: 'Loop pass 1 bars 1–2' });
  for (let i = 0; i < 20 && !(await pass.evaluate((b) => b === document.activeElement)); i++)
    await page.keyboard.press('Tab');
  await expect(pass).toBeFocused();
  // Space presses what the keyboard has reached, and does not play.
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: /Pass 1/, pressed: true })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Play' })).toBeVisible();
  const play = page.getByRole('button', { name: 'Play' });
  for (let i = 0; i < 80 && !(await play.evaluate((b) => b === document.activeElement)); i++)
    await page.keyboard.press('Tab');
  await expect(play).toBeFocused();
});
