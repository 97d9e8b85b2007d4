/** Where files lie while they are read: somebody's recordings, so nobody else on this computer may look. */
import { mkdir } from 'node:fs/promises';

const PRIVATE_FOLDER = 0o700;
/** Mode of every file in it. */
export const PRIVATE_FILE = 0o600;

export async function prepareSpool(folder: string): Promise<void> {
  await mkdir(folder, { recursive: true, mode: PRIVATE_FOLDER });
}
