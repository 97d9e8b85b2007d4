/**
 * Whether a file ends before its own container says. ffmpeg reads a cut WAV or Ogg to where it ends without a
 * word, and calls a cut M4A no audio at all.
 *
 * WAV: sizes of chunks (Microsoft and IBM, Multimedia Programming Interface and Data Specifications 1.0, 1991,
 * chapter 2). Ogg: the last page is whole and carries the end-of-stream flag (RFC 3533, section 6). M4A: sizes of
 * boxes (ISO/IEC 14496-12, section 4.2). FLAC and MP3 state their length, so decoding them tells.
 */
import { open, type FileHandle } from 'node:fs/promises';

export interface CutOff {
  /** Share of the file that is there, in (0, 1); null when it can't be told. */
  readonly share: number | null;
}

/** Some writers are a few bytes off; nobody hears that. */
const WHOLE_SHARE = 0.995;
/** Sizes that a writer to a pipe leaves open. */
const UNKNOWN_SIZES = [0, 0xffffffff];
/** An Ogg page is at most 65307 bytes: its last one starts in here. */
const OGG_TAIL = 65_307;
const OGG_HEADER = 27;
const OGG_END_OF_STREAM = 0x04;

async function read(file: FileHandle, at: number, length: number): Promise<Buffer> {
  const { buffer, bytesRead } = await file.read(Buffer.alloc(length), 0, length, Math.max(0, at));
  return buffer.subarray(0, bytesRead);
}

function shareOf(size: number, declared: number): CutOff | null {
  const share = size / declared;
  return share < WHOLE_SHARE ? { share } : null;
}

async function findCutInWav(file: FileHandle, size: number): Promise<CutOff | null> {
  for (let at = 12; ;) {
    const header = await read(file, at, 8);
    if (header.length < 8) return null;
    const length = header.readUInt32LE(4);
    if (header.toString('latin1', 0, 4) === 'data') {
      return UNKNOWN_SIZES.includes(length) ? null : shareOf(size, at + 8 + length);
    }
    // Chunks are padded to an even length.
    at += 8 + length + (length % 2);
  }
}

async function findCutInOgg(file: FileHandle, size: number): Promise<CutOff | null> {
  const tail = await read(file, size - OGG_TAIL, OGG_TAIL);
  const start = tail.lastIndexOf('OggS');
  if (start < 0 || tail.length < start + OGG_HEADER) return { share: null };
  const segments = tail[start + OGG_HEADER - 1];
  const table = tail.subarray(start + OGG_HEADER, start + OGG_HEADER + segments);
  const end = start + OGG_HEADER + segments + table.reduce((sum, length) => sum + length, 0);
  const isLast = (tail[start + 5] & OGG_END_OF_STREAM) !== 0;
  return table.length === segments && end <= tail.length && isLast ? null : { share: null };
}

async function findCutInM4a(file: FileHandle, size: number): Promise<CutOff | null> {
  for (let at = 0; at < size;) {
    const header = await read(file, at, 16);
    if (header.length < 8) return { share: null };
    const short = header.readUInt32BE(0);
    if (short === 0) return null; // reaches to the end of the file, wherever that is
    const length = short === 1 && header.length === 16 ? Number(header.readBigUInt64BE(8)) : short;
    if (length < 8) return null; // damaged otherwise; the decoder says so
    if (at + length > size) return shareOf(size, at + length) ?? { share: null };
    at += length;
  }
  return null;
}

/** Null when the file is whole, or its format says nothing about its length. */
export async function findCutOff(path: string): Promise<CutOff | null> {
  const file = await open(path);
  try {
    const { size } = await file.stat();
    const head = (await read(file, 0, 12)).toString('latin1');
    if (head.startsWith('RIFF') && head.endsWith('WAVE')) return await findCutInWav(file, size);
    if (head.startsWith('OggS')) return await findCutInOgg(file, size);
    if (head.slice(4, 8) === 'ftyp') return await findCutInM4a(file, size);
    return null;
  } finally {
    await file.close();
  }
}
