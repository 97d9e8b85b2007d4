/**
 * A piece of a band that was taken apart, as it is stored: Opus (RFC 6716) in Ogg, eight channels of their own (RFC 7845, mapping family
 * 255). A quarter of what FLAC takes; what is rounded away in one part lies under that part.
 */
import { randomUUID } from 'node:crypto';
import { rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { PIECE_CHANNELS, SEPARATION_RATE } from '@wild-needle/core/parts';
import { ONLY_THIS_FILE } from './decode';
import { runTool, ToolFailure } from './run-tool';
import { prepareSpool, PRIVATE_FILE } from './spool';

/** 64 kbit/s a channel: the noise is 15 to 26 dB under each part, and under all of them together. */
const BITRATE = '512k';
const LAYOUT = ['-ac', String(PIECE_CHANNELS)];

/** Runs ffmpeg over bytes that lie in a file of their own meanwhile. */
async function throughFfmpeg(
  bytes: Uint8Array,
  spoolDir: string,
  input: readonly string[],
  output: readonly string[],
): Promise<Buffer> {
  await prepareSpool(spoolDir);
  const path = join(spoolDir, randomUUID());
  const chunks: Buffer[] = [];
  try {
    await writeFile(path, bytes, { mode: PRIVATE_FILE });
    const { code, stderr } = await runTool(
      'ffmpeg',
      ['-v', 'error', '-nostdin', ...input, '-i', `file:${path}`, ...output, '-'],
      (chunk) => chunks.push(chunk),
    );
    if (code !== 0) throw new ToolFailure(`ffmpeg could not work on a piece: ${stderr}`);
  } finally {
    await rm(path, { force: true });
  }
  return Buffer.concat(chunks);
}

/** `samples`: 16 bits of each channel in turn, at 44.1 kHz. */
export function encodePiece(samples: Int16Array, spoolDir: string): Promise<Buffer> {
  const bytes = new Uint8Array(samples.buffer, samples.byteOffset, samples.byteLength);
  return throughFfmpeg(
    bytes,
    spoolDir,
    ['-f', 's16le', '-ar', String(SEPARATION_RATE), ...LAYOUT],
    ['-c:a', 'libopus', '-mapping_family', '255', '-b:a', BITRATE, '-compression_level', '0', '-f', 'ogg'],
  );
}

/** The samples at another rate, as many bytes as they are. */
export function decodePiece(bytes: Buffer, rate: number, spoolDir: string): Promise<Buffer> {
  const output = ['-f', 's16le', '-ar', String(rate), ...LAYOUT];
  return throughFfmpeg(bytes, spoolDir, [...ONLY_THIS_FILE, '-f', 'ogg'], output);
}
