/** Small recordings for tests, encoded by ffmpeg. */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** A tone of `seconds` at `freqHz` in the format that the ending names. */
export function toneFile(
  ending: string,
  seconds: number,
  freqHz = 110,
  extra: readonly string[] = [],
): Buffer {
  const folder = mkdtempSync(join(tmpdir(), 'wn-tone-'));
  const path = join(folder, `tone.${ending}`);
  const source = freqHz > 0 ? `sine=frequency=${freqHz}:duration=${seconds}` : `anullsrc=duration=${seconds}`;
  const { status, stderr } = spawnSync(
    'ffmpeg',
    ['-v', 'error', '-f', 'lavfi', '-i', source, ...extra, path],
    {
      encoding: 'utf8',
    },
  );
  try {
    if (status !== 0) throw new Error(stderr);
    return readFileSync(path);
  } finally {
    rmSync(folder, { recursive: true });
  }
}
