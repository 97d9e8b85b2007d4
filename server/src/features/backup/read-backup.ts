/** A backup that somebody brings: every file of it is held against its checksum before anything of it is used. */
import { createHash } from 'node:crypto';
import { createInterface } from 'node:readline';
import type { Readable } from 'node:stream';
import { openPromise, type Entry, type ZipFile } from 'yauzl';
import * as z from 'zod';
import { MAX_UPLOAD_BYTES } from '@wild-needle/contract';
import { HttpError } from '../../http/errors';
import {
  BACKUP_SCHEMA,
  historyPath,
  LOG,
  logFileSchema,
  MANIFEST,
  manifestSchema,
  recordingPath,
  revisionLineSchema,
  songFileSchema,
  songPath,
  type LogFile,
  type Manifest,
  type SongFile,
} from './format';

/** Largest manifest, song and log: far more than ten thousand songs, and small enough to be held. */
const MOST_JSON_BYTES = 256_000_000;
/** A thousand revisions of eight megabytes. */
const MOST_HISTORY_BYTES = 8_000_000_000;
/** Songs, histories and recordings of ten thousand songs. */
const MOST_FILES = 100_000;

export interface Backup {
  readonly madeAt: Date;
  readonly songIds: readonly string[];
  song(id: string): Promise<SongFile>;
  /** Oldest first. */
  history(id: string): AsyncGenerator<z.infer<typeof revisionLineSchema>>;
  sound(recordingId: string): Promise<Readable>;
  log(): Promise<LogFile>;
  close(): void;
}

const refuse = (message: string): HttpError => new HttpError(422, 'invalid-request', message);
export const damaged = (what: string): HttpError =>
  refuse(`This backup is cut or changed: ${what}. Nothing was brought back. Take another copy of it.`);
const noBackup = (): HttpError =>
  refuse('This is no backup of Wild Needle. Choose a file that “Back up everything” has made.');

/** Rejects with a sentence; nothing is left open then. */
export async function openBackup(path: string): Promise<Backup> {
  let zip: ZipFile;
  try {
    zip = await openPromise(path, { lazyEntries: true, autoClose: false, strictFileNames: true });
  } catch {
    throw noBackup();
  }
  try {
    const entries = await entriesOf(zip);
    const manifest = await readManifest(zip, entries);
    await holdAgainst(zip, entries, manifest);
    return backupOf(zip, entries, manifest);
  } catch (error) {
    zip.close();
    throw error instanceof HttpError ? error : damaged((error as Error).message);
  }
}

/** By name. Names with tricks in them are refused by the reader: none leads out of the file, and none is written to a disk. */
async function entriesOf(zip: ZipFile): Promise<ReadonlyMap<string, Entry>> {
  if (zip.entryCount > MOST_FILES) throw noBackup();
  const entries = new Map<string, Entry>();
  for await (const entry of zip.eachEntry()) {
    if (entries.has(entry.fileName)) throw damaged(`${entry.fileName} is in it twice`);
    entries.set(entry.fileName, entry);
  }
  return entries;
}

const mostBytes = (name: string): number =>
  name.startsWith('recordings/')
    ? MAX_UPLOAD_BYTES
    : name.endsWith('.ndjson')
      ? MOST_HISTORY_BYTES
      : MOST_JSON_BYTES;

/** A file that unpacks to more than it may is not unpacked. The reader stops one that unpacks to more than it says. */
function open(zip: ZipFile, entries: ReadonlyMap<string, Entry>, name: string): Promise<Readable> {
  const entry = entries.get(name);
  if (!entry) throw damaged(`${name} is missing`);
  if (entry.uncompressedSize > mostBytes(name)) throw damaged(`${name} is larger than such a file can be`);
  return zip.openReadStreamPromise(entry);
}

async function text(stream: Readable): Promise<string> {
  const parts: Buffer[] = [];
  for await (const part of stream) parts.push(part as Buffer);
  return Buffer.concat(parts).toString('utf8');
}

const schemaName = z.object({ schema: z.string() });

async function readManifest(zip: ZipFile, entries: ReadonlyMap<string, Entry>): Promise<Manifest> {
  if (!entries.has(MANIFEST)) throw noBackup();
  const value: unknown = JSON.parse(await text(await open(zip, entries, MANIFEST)));
  const named = schemaName.safeParse(value);
  if (!named.success) throw noBackup();
  const { schema } = named.data;
  if (schema !== BACKUP_SCHEMA) {
    const isOurs = schema.startsWith('wild-needle/backup@');
    throw isOurs
      ? refuse('This backup was made by a newer Wild Needle. Bring it back with that one.')
      : noBackup();
  }
  return manifestSchema.parse(value);
}

async function holdAgainst(
  zip: ZipFile,
  entries: ReadonlyMap<string, Entry>,
  { files }: Manifest,
): Promise<void> {
  const named = new Set([MANIFEST, ...Object.keys(files)]);
  for (const name of entries.keys()) if (!named.has(name)) throw damaged(`${name} does not belong to it`);
  for (const [name, { byteLength, sha256 }] of Object.entries(files)) {
    const hash = createHash('sha256');
    let read = 0;
    for await (const part of await open(zip, entries, name)) {
      read += (part as Buffer).length;
      if (read > byteLength) break;
      hash.update(part as Buffer);
    }
    if (read !== byteLength || hash.digest('hex') !== sha256) throw damaged(`${name} is not what it was`);
  }
}

function backupOf(zip: ZipFile, entries: ReadonlyMap<string, Entry>, manifest: Manifest): Backup {
  const json = async (name: string): Promise<unknown> =>
    JSON.parse(await text(await open(zip, entries, name)));
  const songIds = [...entries.keys()].flatMap((name) => /^songs\/([0-9a-f-]+)\.json$/.exec(name)?.[1] ?? []);
  return {
    madeAt: new Date(manifest.madeAt),
    songIds,
    song: async (id) => songFileSchema.parse(await json(songPath(id))),
    async *history(id) {
      const stream = await open(zip, entries, historyPath(id));
      for await (const line of createInterface({ input: stream, crlfDelay: Infinity })) {
        if (line !== '') yield revisionLineSchema.parse(JSON.parse(line));
      }
    },
    sound: (id) => open(zip, entries, recordingPath(id)),
    log: async () => logFileSchema.parse(await json(LOG)),
    close: () => zip.close(),
  };
}
