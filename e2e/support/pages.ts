/** The screens as a user handles them. */
import { expect, type Locator, type Page } from '@playwright/test';

export class Shelf {
  constructor(private readonly page: Page) {}

  async open(url: string): Promise<void> {
    await this.page.goto(url);
    await expect(this.page.getByRole('heading', { name: 'On the shelf' })).toBeVisible();
  }

  async choose(...files: (string | { name: string; mimeType: string; buffer: Buffer })[]): Promise<void> {
    await this.page.locator('#choose-file').setInputFiles(files as string[]);
  }

  song(title: string): Locator {
    return this.page.getByRole('list', { name: 'Songs' }).getByRole('listitem').filter({ hasText: title });
  }

  async openSong(title: string): Promise<Riffs> {
    await this.song(title).getByRole('link').click();
    const riffs = new Riffs(this.page);
    await expect(riffs.grid).toBeVisible();
    return riffs;
  }
}

export class Riffs {
  readonly grid: Locator;
  readonly saved: Locator;

  constructor(readonly page: Page) {
    this.grid = page.getByRole('grid', { name: 'Written riff' });
    this.saved = page.locator('wn-header').getByText('Saved', { exact: true });
  }

  /** What a screen reader hears of each written strum. */
  strums(): Promise<string[]> {
    return this.grid
      .getByRole('gridcell')
      .evaluateAll((cells) => cells.map((c) => c.getAttribute('aria-label') ?? ''));
  }

  async ready(): Promise<void> {
    await expect(this.page.getByRole('button', { name: 'Play' })).toBeEnabled({ timeout: 30_000 });
  }

  async play(): Promise<void> {
    await this.page.getByRole('button', { name: 'Play' }).click();
  }

  speed(): Promise<string> {
    return this.page.getByTestId('speed').innerText();
  }

  /** Seconds on the deck's clock. */
  async clock(): Promise<number> {
    const text = await this.page.locator('wn-deck .place .mono').innerText();
    const [minutes, seconds] = text.split(':').map(Number);
    return minutes * 60 + seconds;
  }

  async takeAway(): Promise<string> {
    const download = this.page.waitForEvent('download');
    await this.page.getByRole('button', { name: 'Export' }).click();
    await this.page.getByRole('menuitem', { name: 'Text tab as a file' }).click();
    const stream = await (await download).createReadStream();
    const chunks: Buffer[] = [];
    for await (const chunk of stream) chunks.push(chunk as Buffer);
    return Buffer.concat(chunks).toString('utf8');
  }
}
