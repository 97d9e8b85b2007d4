/** Feet and single keys: pedals, slow and full speed, loops that are kept. */
import { expect } from '@playwright/test';
import { test } from '../support/app';
import { Shelf } from '../support/pages';

test('a pedal learns to loop, an expression pedal sets the speed, both survive a reload', async ({
  demoApp,
  page,
}) => {
  const shelf = new Shelf(page);
  await shelf.open(demoApp.url);
  const riffs = await shelf.openSong('Salt on the Wire');
  await riffs.ready();
  await page.keyboard.press(':');
  const board = page.getByRole('complementary', { name: 'Foot pedals' });
  await board.getByRole('button', { name: 'Learn the pedal for: Loop on, off' }).click();
  await board.getByRole('button', { name: 'Switch 2' }).click();
  await expect(board.getByText('control 81')).toBeVisible();
  await board.getByRole('button', { name: 'Learn the pedal for: Speed' }).click();
  const expression = board.getByRole('slider', { name: 'Expression pedal' });
  await expression.fill('127');
  await expect(board.getByText('control 11')).toBeVisible();

  await page.reload();
  await riffs.ready();
  await page.keyboard.press(':');
  const loop = page.getByRole('button', { name: /Pass 1/, pressed: true });
  await board.getByRole('button', { name: 'Switch 2' }).click();
  await expect(loop).toBeVisible();
  await expression.fill('0');
  await expect(page.getByTestId('speed')).toHaveText('25 %');
  // A pedal is taken back, and what it did is done by nothing.
  const takeBack = board.getByRole('button', { name: 'Take the pedal back from: Loop on, off' });
  await takeBack.click();
  await expect(takeBack).toBeDisabled();
  await board.getByRole('button', { name: 'Switch 2' }).click();
  await expect(loop).toBeVisible();
  // Who closes the board has stopped learning: the next press teaches nothing.
  const learn = board.getByRole('button', { name: 'Learn the pedal for: Loop on, off' });
  await learn.click();
  await expect(learn).toHaveText(/Press the pedal now/);
  await page.keyboard.press('Escape');
  await expect(board).toBeHidden();
  await page.keyboard.press(':');
  await expect(learn).toHaveText('Learn');
  await page.keyboard.press('Escape');
  await expect(board).toBeHidden();
});

test('goes back and forth between slow and full speed, and keeps a loop with the song', async ({
  demoApp,
  page,
}) => {
  const shelf = new Shelf(page);
  await shelf.open(demoApp.url);
  const riffs = await shelf.openSong('Salt on the Wire');
  await riffs.ready();
  await page.keyboard.press('w');
  await expect(page.getByTestId('speed')).toHaveText('60 %');
  await page.keyboard.press('w');
  await expect(page.getByTestId('speed')).toHaveText('100 %');

  await page.getByRole('button', { name: 'What to loop' }).click();
  await page.getByRole('menuitem', { name: 'Loop this section' }).click();
  await page.getByRole('button', { name: 'What to loop' }).click();
  const name = page.getByRole('textbox', { name: 'Name of the loop' });
  await expect(name).toHaveAttribute('placeholder', 'Intro, pass 1–2');
  await name.fill('Hard bit');
  await name.press('Enter');
  await expect(page.getByText('Saved')).toBeVisible();
  await page.reload();
  await riffs.ready();
  await page.getByRole('button', { name: 'What to loop' }).click();
  await page.getByRole('menuitem', { name: /^Hard bit/ }).click();
  await expect(page.getByRole('button', { name: /Pass 1–2/, pressed: true })).toBeVisible();
});
