/** From the pitch of a recording to a guitar that is tuned for it. */
import { mkdirSync } from 'node:fs';
import { expect } from '@playwright/test';
import { test } from '../support/app';
import { renderRiff } from '../support/fluidsynth-riff';
import { Shelf } from '../support/pages';

test('settles pitch and tuning of a recording off 440 Hz, moves the tab along, and takes it back', async ({
  demoApp,
  page,
}) => {
  const shelf = new Shelf(page);
  await shelf.open(demoApp.url);
  const riffs = await shelf.openSong('Salt on the Wire');
  await riffs.ready();
  const before = await riffs.strums();
  await page.getByRole('tab', { name: 'Tuning' }).click();
  await expect(page.getByText('cents sharp')).toBeVisible();
  await expect(page.getByText(/Between C# and D/)).toBeVisible();
  await expect(page.getByRole('radio', { name: /Drop C#/ })).toBeChecked();

  // The strings follow the recording when the guitar does.
  await expect(page.getByText('69.3 Hz')).toBeVisible();
  await page.keyboard.press('2');
  await expect(page.getByText('70.8 Hz')).toBeVisible();
  await page.keyboard.press('1');
  await expect(page.getByText('69.3 Hz')).toBeVisible();

  // A tuning whose low string is too high: what is lost is named, goes to its strum, and comes back with the tuning.
  await page.getByRole('combobox', { name: 'Another tuning' }).click();
  await page.getByRole('option', { name: 'Standard', exact: true }).click();
  await expect(page.getByText(/can't be played so/)).toBeVisible();
  await page.getByRole('button', { name: 'Which?' }).click();
  await page.getByRole('menuitem', { name: /^Riff A, bar 1, beat 1: C#2/ }).click();
  await expect(riffs.grid.getByRole('gridcell', { selected: true })).toHaveAccessibleName(
    /C#2.* lost in this tuning/,
  );
  await page.getByRole('tab', { name: 'Tuning' }).click();
  await page.getByRole('radio', { name: /Drop C#/ }).click();
  await expect(page.getByText(/can't be played so/)).toBeHidden();
  await page.getByRole('tab', { name: 'Riffs' }).click();
  await expect.poll(() => riffs.strums()).toEqual(before);
  await page.getByRole('tab', { name: 'Tuning' }).click();

  // String by string: the seventh is a fourth under the sixth.
  await page.getByRole('button', { name: 'One string more' }).click();
  await expect(page.getByRole('heading', { name: 'Seven strings' })).toBeVisible();
  await page.getByRole('button', { name: 'String 7 down' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('tab', { name: 'Riffs' }).click();
  await riffs.ready();
  await page.keyboard.press('Control+z');
  await expect.poll(() => riffs.strums()).toEqual(before);
});

test('the tuner finds the string by itself and says up or down', async ({ demoApp, page }) => {
  const shelf = new Shelf(page);
  await shelf.open(demoApp.url);
  const riffs = await shelf.openSong('Salt on the Wire');
  await riffs.ready();
  await page.getByRole('tab', { name: 'Tuning' }).click();
  await page.getByRole('radio', { name: 'Simulated' }).click();
  await expect(page.getByText(/String 6 sounds an octave under string 4/)).toBeVisible();
  // The simulated guitar has its sixth string 26 cents sharp, its fifth 9 flat.
  await page.getByRole('button', { name: 'Strike string 6' }).click();
  const sixth = page.getByRole('listitem').filter({ hasText: 'Tune down' });
  await expect(sixth).toContainText('+26.');
  // Two strings at once are no tone to read: the first rings out before the next one.
  await expect(sixth).toHaveCount(0);
  await page.getByRole('button', { name: 'Strike string 5' }).click();
  const fifth = page.getByRole('listitem').filter({ hasText: 'Tune up a little' });
  await expect(fifth).toContainText(/−[89]\./);
  // Two turns of its peg, and it is in tune.
  for (let i = 0; i < 2; i++) {
    await page.getByRole('button', { name: 'Tighten string 5' }).click();
  }
  await expect(page.getByRole('listitem').filter({ hasText: 'In tune' })).toBeVisible();
});

test('says that a recording lies between two notes, and lets the user say which', async ({
  app,
  page,
}, info) => {
  const shelf = new Shelf(page);
  await shelf.open(app.url);
  mkdirSync(info.outputDir, { recursive: true });
  await shelf.choose(renderRiff(info.outputDir, { centsSharp: 50 }));
  await expect(shelf.song('Four bar riff').getByText(/next: as it was heard/)).toBeVisible({
    timeout: 90_000,
  });
  const riffs = await shelf.openSong('Four bar riff');
  await riffs.ready();
  await page.getByRole('tab', { name: 'Tuning' }).click();

  await expect(page.getByText('Between two notes.')).toBeVisible();
  await page.keyboard.press('2');
  const cents = page.getByText(/^cents (sharp|flat)/);
  const lowString = page.getByText(/^[0-9.]+ Hz/).first();
  // Tuned to the recording: no longer the E of 440.
  await expect(lowString).not.toHaveText('82.4 Hz');
  const [side, tunedTo] = [await cents.innerText(), await lowString.innerText()];
  await page.getByRole('button', { name: 'Take the other side' }).click();
  await expect(cents).not.toHaveText(side);
  // As far the other way: every string is tuned a semitone away from where it was.
  await expect(lowString).not.toHaveText(tunedTo);
  await page.keyboard.press('Control+z');
  await expect(cents).toHaveText(side);
  await expect(lowString).toHaveText(tunedTo);
});
