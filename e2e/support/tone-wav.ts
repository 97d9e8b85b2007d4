/** A WAV file of one tone per channel, 8 bits. */
const RATE = 8000;

export function toneWav(tonesHz: readonly number[], seconds: number): Buffer {
  const frames = Math.round(seconds * RATE);
  const samples = Buffer.alloc(frames * tonesHz.length);
  for (let n = 0; n < frames; n++) {
    tonesHz.forEach((hz, c) => {
      samples[n * tonesHz.length + c] = 128 + Math.round(90 * Math.sin((2 * Math.PI * hz * n) / RATE));
    });
  }
  const header = Buffer.alloc(44);
  header.write('RIFF', 0);
  header.writeUInt32LE(36 + samples.length, 4);
  header.write('WAVEfmt ', 8);
  header.writeUInt32LE(16, 16);
  header.writeUInt16LE(1, 20);
  header.writeUInt16LE(tonesHz.length, 22);
  header.writeUInt32LE(RATE, 24);
  header.writeUInt32LE(RATE * tonesHz.length, 28);
  header.writeUInt16LE(tonesHz.length, 32);
  header.writeUInt16LE(8, 34);
  header.write('data', 36);
  header.writeUInt32LE(samples.length, 40);
  return Buffer.concat([header, samples]);
}
