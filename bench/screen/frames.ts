/** How evenly a page draws: the distances of its frames while something goes on. */
import type { Page } from '@playwright/test';

const FRAMES_S = 4;

/** Milliseconds from frame to frame over four seconds in which `act` is done. */
export async function frameGaps(page: Page, act: () => Promise<void>): Promise<number[]> {
  const measured = page.evaluate(
    (lengthMs) =>
      new Promise<number[]>((resolve) => {
        const gaps: number[] = [];
        const start = performance.now();
        let last = start;
        const tick = (): void => {
          const now = performance.now();
          gaps.push(now - last);
          last = now;
          if (now - start < lengthMs) requestAnimationFrame(tick);
          else resolve(gaps.slice(1));
        };
        requestAnimationFrame(tick);
      }),
    FRAMES_S * 1000,
  );
  await act();
  return measured;
}
