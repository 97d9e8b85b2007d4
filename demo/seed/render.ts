/** A demo song as a FLAC file: rendered by `core/synth`, encoded by ffmpeg. */
import { spawn } from 'node:child_process';
import { renderBand } from '@wild-needle/core/synth';
import { a4OfOffset } from '@wild-needle/core/theory';
import type { DemoSong } from '../riffs/songs';

const SAMPLE_RATE = 44100;

export async function renderDemoSong({
  played: document,
  band,
}: Pick<DemoSong, 'played' | 'band'>): Promise<Buffer> {
  const [left, right] = renderBand(document, a4OfOffset(document.referenceOffsetCents), {
    ...band,
    sampleRate: SAMPLE_RATE,
  });
  const interleaved = new Float32Array(left.length * 2);
  for (let n = 0; n < left.length; n++) {
    interleaved[2 * n] = left[n];
    interleaved[2 * n + 1] = right[n];
  }
  return encodeFlac(Buffer.from(interleaved.buffer));
}

function encodeFlac(floats: Buffer): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    const child = spawn(
      'ffmpeg',
      ['-v', 'error', '-f', 'f32le', '-ar', String(SAMPLE_RATE), '-ac', '2', '-i', '-'].concat([
        '-sample_fmt',
        's16',
        '-compression_level',
        '5',
        '-f',
        'flac',
        '-',
      ]),
      { stdio: ['pipe', 'pipe', 'inherit'] },
    );
    const chunks: Buffer[] = [];
    child.stdout.on('data', (chunk: Buffer) => chunks.push(chunk));
    child.on('error', reject);
    child.on('close', (code) =>
      code === 0 ? resolve(Buffer.concat(chunks)) : reject(new Error(`ffmpeg ended with code ${code}`)),
    );
    child.stdin.on('error', reject);
    child.stdin.end(floats);
  });
}
