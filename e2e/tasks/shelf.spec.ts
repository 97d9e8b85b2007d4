/** The shelf: what is there stays until it is removed on purpose. */
import { expect } from '@playwright/test';
import { test } from '../support/app';
import { Shelf } from '../support/pages';

test('asks before a song is removed, and forgets the question on Escape and after a moment', async ({
  demoApp,
  page,
}) => {
  const shelf = new Shelf(page);
  await shelf.open(demoApp.url);
  const song = shelf.song('Salt on the Wire');
  const ask = song.getByRole('button', { name: 'Remove Salt on the Wire' });
  const confirm = song.getByRole('button', { name: 'Remove it' });
  await ask.click();
  await expect(confirm).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(ask).toBeVisible();
  await expect(confirm).toBeHidden();
  await ask.click();
  await expect(confirm).toBeVisible();
  // By itself, in the time that is seen to pass.
  await expect(ask).toBeVisible();
  await page.reload();
  await expect(song).toBeVisible();
});
