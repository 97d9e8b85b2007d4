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
