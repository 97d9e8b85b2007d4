/** WAV files made for a test. */

/** The chunks of a WAV file (Microsoft, Multimedia Programming Interface 1.0, 1991) around its samples. */
function wav(samples: Buffer, channels: number, rate: number, bytes: 1 | 2): Buffer {
  const header = Buffer.alloc(44);
  header.write('RIFF', 0);
  header.writeUInt32LE(36 + samples.length, 4);
  header.write('WAVEfmt ', 8);
  header.writeUInt32LE(16, 16);
  header.writeUInt16LE(1, 20);
  header.writeUInt16LE(channels, 22);
  header.writeUInt32LE(rate, 24);
  header.writeUInt32LE(rate * channels * bytes, 28);
  header.writeUInt16LE(channels * bytes, 32);
  header.writeUInt16LE(8 * bytes, 34);
  header.write('data', 36);
  header.writeUInt32LE(samples.length, 40);
  return Buffer.concat([header, samples]);
}

/** One tone per channel, 8 bits at 8 kHz. */
export function toneWav(tonesHz: readonly number[], seconds: number): Buffer {
  const rate = 8000;
  const frames = Math.round(seconds * rate);
  const samples = Buffer.alloc(frames * tonesHz.length);
  for (let n = 0; n < frames; n++) {
    tonesHz.forEach((hz, c) => {
      samples[n * tonesHz.length + c] = 128 + Math.round(90 * Math.sin((2 * Math.PI * hz * n) / rate));
    });
  }
  return wav(samples, tonesHz.length, rate, 1);
}

/** A tone with its first overtones, each weaker than the one before, 16 bits at 44.1 kHz. */
export function partialsWav(fundamentalHz: number, partials: number, seconds: number): Buffer {
  const rate = 44_100;
  const samples = Buffer.alloc(2 * rate * seconds);
  for (let n = 0; n < rate * seconds; n++) {
    let value = 0;
    for (let k = 1; k <= partials; k++)
      value += Math.sin((2 * Math.PI * fundamentalHz * k * n) / rate + k * k) / k;
    samples.writeInt16LE(Math.round(9000 * value), 2 * n);
  }
  return wav(samples, 1, rate, 2);
}

/** What can be told apart in a {@link bandWav}. */
export const BAND_HZ = { bass: 60, guitar: 330 } as const;

/** A bass in the middle, a guitar on each side, and noise that is struck four times a second; 16 bits at 44.1 kHz. */
export function bandWav(seconds: number): Buffer {
  const rate = 44_100;
  const samples = Buffer.alloc(4 * rate * seconds);
  const guitar = (hz: number, timeS: number): number =>
    [1, 2, 3, 4].reduce((sum, k) => sum + Math.sin(2 * Math.PI * hz * k * timeS) / k, 0);
  let noise = 1;
  for (let n = 0; n < rate * seconds; n++) {
    const timeS = n / rate;
    noise = (noise * 16_807) % 2_147_483_647;
    const hit = (noise / 1_073_741_824 - 1) * Math.exp(-(timeS % 0.25) / 0.02);
    const middle = 7000 * Math.sin(2 * Math.PI * BAND_HZ.bass * timeS) + 7000 * hit;
    samples.writeInt16LE(Math.round(middle + 3000 * guitar(BAND_HZ.guitar, timeS)), 4 * n);
    samples.writeInt16LE(Math.round(middle + 3000 * guitar(247, timeS)), 4 * n + 2);
  }
  return wav(samples, 2, rate, 2);
}
