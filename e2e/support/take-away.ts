/** The file that a key of the sheet takes away. */
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from '@playwright/test';

export async function takeAway(
  page: Page,
  key: string,
): Promise<{ name: string; bytes: Buffer; path: string }> {
  const [download] = await Promise.all([page.waitForEvent('download'), page.keyboard.press(key)]);
  const path = join(mkdtempSync(join(tmpdir(), 'wn-away-')), download.suggestedFilename());
  await download.saveAs(path);
  return { name: download.suggestedFilename(), bytes: readFileSync(path), path };
}
