/** The gate in CI: another performance of a song, in all that it may differ in, is found again; floors well under what was measured. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { alignedPair } from './pair-figures';
import { renderPair } from './performances';

const folder = mkdtempSync(join(tmpdir(), 'wild-needle-pairs-'));
afterAll(() => rmSync(folder, { recursive: true }));

describe('another performance, played by fluidsynth', () => {
  it('at another tempo, drifting, in another key, with a part more, before an audience: half of it to 20 ms', () => {
    const figures = alignedPair(renderPair(folder, 21, 'all'));
    expect(figures).toMatchObject({ keyIsRight: true, partIsRight: true });
    expect(figures?.medianMs).toBeLessThan(20);
  }, 60_000);
});
