/** A take as a file: the header that its pieces lack, and the pieces behind it. */
import { TAKE_SAMPLE_BYTES } from '@wild-needle/contract';
import type { TakeSound } from './takes.store';

const HEADER_BYTES = 44;

/** RIFF WAVE, PCM (Multimedia Programming Interface and Data Specifications 1.0, IBM and Microsoft 1991). */
export function wavHeader({ sampleRate, byteLength }: Pick<TakeSound, 'sampleRate' | 'byteLength'>): Buffer {
  const header = Buffer.alloc(HEADER_BYTES);
  header.write('RIFF', 0, 'latin1');
  header.writeUInt32LE(HEADER_BYTES - 8 + byteLength, 4);
  header.write('WAVEfmt ', 8, 'latin1');
  header.writeUInt32LE(16, 16);
  header.writeUInt16LE(1, 20);
  header.writeUInt16LE(1, 22);
  header.writeUInt32LE(sampleRate, 24);
  header.writeUInt32LE(sampleRate * TAKE_SAMPLE_BYTES, 28);
  header.writeUInt16LE(TAKE_SAMPLE_BYTES, 32);
  header.writeUInt16LE(8 * TAKE_SAMPLE_BYTES, 34);
  header.write('data', 36, 'latin1');
  header.writeUInt32LE(byteLength, 40);
  return header;
}

export async function* wavOfTake(sound: TakeSound, pieces: AsyncIterable<Buffer>): AsyncGenerator<Buffer> {
  yield wavHeader(sound);
  yield* pieces;
}
