/** A document that the server does not take: the user is told why, loses nothing, and goes on. */
import { expect } from '@playwright/test';
import { test } from '../support/app';
import { Shelf } from '../support/pages';

const SONG = 'Salt on the Wire';

test('says why a save is refused, does not repeat it, and keeps the work through a reload and an undo', async ({
  demoApp,
  page,
}) => {
  let asked = 0;
  await page.route('**/document', async (route) => {
    asked++;
    await route.fulfill({
      status: 400,
      contentType: 'application/json',
      body: JSON.stringify({
        code: 'invalid-request',
        message: 'document.riffs.0.name: Too big',
        issues: [],
      }),
    });
  });
  const shelf = new Shelf(page);
  await shelf.open(demoApp.url);
  const riffs = await shelf.openSong(SONG);
  await riffs.ready();
  const before = await riffs.strums();
  await page.keyboard.press('x');
  const refused = page
    .getByRole('alert')
    .filter({ hasText: "can't be saved as it is: riffs.0.name: Too big" });
  await expect(refused).toBeVisible();
  await expect(page.locator('wn-header')).toContainText('refused');
  const once = asked;
  // Longer than a save that got no answer waits before it is tried again; the deck runs meanwhile.
  await riffs.play();
  await expect.poll(() => riffs.clock()).toBeGreaterThan(4);
  await page.keyboard.press('Space');
  expect(asked).toBe(once);
  const written = await riffs.strums();
  expect(written).not.toEqual(before);

  // Nothing is lost with the page, nor because another window of the song saves.
  await page.reload();
  await expect.poll(() => riffs.strums()).toEqual(written);
  await expect(refused).toBeVisible();
  const download = page.waitForEvent('download');
  await refused.getByRole('button', { name: 'Export it as a file' }).click();
  expect((await download).suggestedFilename()).toBe('salt-on-the-wire.json');

  await page.unroute('**/document');
  await refused.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(() => riffs.strums()).toEqual(before);
  await expect(riffs.saved).toBeVisible();
});
