/**
 * `npm run -s export -- SONG.json FORMAT`: a song that was taken away as a file, in another format on standard
 * output; the formats are those of the menus. Bad input ends with one sentence and exit code 1.
 */
import { readFile } from 'node:fs/promises';
import { FORMATS } from '@wild-needle/core/formats';
import type { SongDocument } from '@wild-needle/core/riff';
import { upgradeDocument } from '@wild-needle/contract';

/** Throws a RangeError that says what would work. */
export async function formatSong(args: readonly string[]): Promise<string | Uint8Array> {
  const [path, id] = args;
  const format = FORMATS.find((row) => row.id === id);
  if (args.length !== 2 || !format) {
    const ids = FORMATS.map((row) => row.id).join(', ');
    throw new RangeError(
      `Give a song and a format: npm run -s export -- SONG.json FORMAT, with one of ${ids}`,
    );
  }
  return format.write(await readSong(path));
}

async function readSong(path: string): Promise<SongDocument> {
  const text = await readFile(path, 'utf8').catch((cause: unknown) => {
    throw new RangeError(`${path} can't be read`, { cause });
  });
  try {
    return upgradeDocument(JSON.parse(text));
  } catch (cause) {
    throw new RangeError(`${path} is not a song as "Take it away as a file" writes it`, { cause });
  }
}

if (import.meta.filename === process.argv[1]) {
  formatSong(process.argv.slice(2)).then(
    (written) => process.stdout.write(written),
    (error: unknown) => {
      process.stderr.write(`${error instanceof RangeError ? error.message : String(error)}\n`);
      process.exitCode = 1;
    },
  );
}
