/** From a key to the end of the frame that shows what it did. */
import type { Page } from '@playwright/test';

/** Between presses: nobody is faster for long. */
const PRESS_MS = 80;

const quantile = (values: readonly number[], q: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(q * values.length))];

export interface KeyTimes {
  readonly median: number;
  readonly percentile95: number;
}

/** Presses keys one after the other. Milliseconds. */
export async function keyTimes(page: Page, keys: readonly string[]): Promise<KeyTimes> {
  await page.evaluate(() => {
    const times: number[] = [];
    Object.assign(window, { keyTimes: times });
    addEventListener(
      'keydown',
      (event) => {
        // A modifier alone writes nothing.
        if (event.key === 'Control') return;
        requestAnimationFrame(() => {
          const channel = new MessageChannel();
          channel.port1.onmessage = () => times.push(performance.now() - event.timeStamp);
          channel.port2.postMessage(null);
        });
      },
      true,
    );
  });
  for (const key of keys) {
    await page.keyboard.press(key);
    await page.waitForTimeout(PRESS_MS);
  }
  const times = await page.evaluate(() => (window as unknown as { keyTimes: number[] }).keyTimes);
  const rounded = (q: number): number => Number(quantile(times, q).toFixed(1));
  return { median: rounded(0.5), percentile95: rounded(0.95) };
}
