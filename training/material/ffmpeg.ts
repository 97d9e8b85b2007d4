/** Debian's ffmpeg, from bytes to bytes or through a file. */
import { spawnSync } from 'node:child_process';

export function ffmpeg(args: readonly string[], input?: Buffer): Buffer {
  const { status, stdout, stderr } = spawnSync('ffmpeg', ['-v', 'error', '-y', ...args], {
    input,
    maxBuffer: 1 << 30,
  });
  if (status !== 0) throw new Error(`ffmpeg failed: ${stderr.toString()}`);
  return stdout;
}
