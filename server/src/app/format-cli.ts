/**
 * `npm run -s export -- SONG.json FORMAT`: a song that was taken away as a file, in another format on standard
 * output; the formats are those of the menus, the sound of the tab and its pages among them. Bad input ends with one sentence and exit code 1.
 */
import { readFile } from 'node:fs/promises';
import { FORMATS } from '@wild-needle/core/formats';
import type { SongDocument } from '@wild-needle/core/riff';
import { upgradeDocument } from '@wild-needle/contract';
import { tabSound } from '../audio/tab-sound';
import { drawSheet } from './drawn-page';

type Write = (document: SongDocument) => string | Uint8Array | Promise<string | Uint8Array>;

/** Everything that a song can be taken away as without its recording. */
export const WRITERS: ReadonlyMap<string, Write> = new Map<string, Write>([
  ...FORMATS.map(({ id, write }) => [id, write] as const),
  ['wav', tabSound],
  ['svg', (document) => drawSheet(document, 'svg')],
  ['pdf', (document) => drawSheet(document, 'pdf')],
]);

/** Throws a RangeError that says what would work. */
export async function formatSong(args: readonly string[]): Promise<string | Uint8Array> {
  const [path, id] = args;
  const write = WRITERS.get(id);
  if (args.length !== 2 || !write) {
    const ids = [...WRITERS.keys()].join(', ');
    throw new RangeError(
      `Give a song and a format: npm run -s export -- SONG.json FORMAT, with one of ${ids}`,
    );
  }
  return write(await readSong(path));
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
