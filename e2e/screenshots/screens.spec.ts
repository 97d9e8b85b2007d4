/** `npm run screenshots`: one picture per main view, from the demo songs, for the README. */
import { test } from '../support/app';
import { Shelf, type Riffs } from '../support/pages';

const FOLDER = 'docs/screenshots';

/** The first verse, slowed and looped, the needle in its third pass. */
async function playVerse(riffs: Riffs): Promise<void> {
  const { page } = riffs;
  await riffs.ready();
  await page.getByRole('radio', { name: 'Riff B' }).click();
  for (let i = 0; i < 8; i++) await page.keyboard.press('-');
  await page.getByRole('button', { name: 'Loop pass 3' }).click();
  await page.keyboard.press('Space');
  await page.waitForTimeout(2600);
}

test('the shelf', async ({ demoApp, page }) => {
  await new Shelf(page).open(demoApp.url);
  await page
    .getByText(/strums checked/)
    .nth(2)
    .waitFor({ timeout: 90_000 });
  await page.screenshot({ path: `${FOLDER}/songs.png` });
});

for (const step of ['tuning', 'sections'] as const) {
  test(step, async ({ demoApp, page }) => {
    const shelf = new Shelf(page);
    await shelf.open(demoApp.url);
    await (await shelf.openSong('Salt on the Wire')).ready();
    await page.getByRole('tab', { name: step, exact: false }).click();
    if (step === 'sections') await page.locator('tbody tr').nth(1).click();
    await page.mouse.move(640, 780);
    await page.waitForTimeout(700);
    await page.screenshot({ path: `${FOLDER}/${step}.png` });
  });
}

for (const colorScheme of ['light', 'dark'] as const) {
  test.describe(() => {
    test.use({ colorScheme });
    test(`the riffs, ${colorScheme}`, async ({ demoApp, page }) => {
      const shelf = new Shelf(page);
      await shelf.open(demoApp.url);
      await playVerse(await shelf.openSong('Salt on the Wire'));
      await page.screenshot({ path: `${FOLDER}/riffs${colorScheme === 'dark' ? '-dark' : ''}.png` });
    });
  });
}
