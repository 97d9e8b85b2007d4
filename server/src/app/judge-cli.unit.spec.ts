import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { judgedBy } from './judge-cli';

const RATE = 44_100;

/** A mono WAV file of 16 bits: plucked strings a fifth apart at these instants, in a little noise. */
function takeWav(struckS: readonly number[], lengthS: number): Buffer {
  const samples = new Int16Array(lengthS * RATE);
  for (let n = 0; n < samples.length; n++) samples[n] = 20 * (((n * 7919) % 13) / 6 - 1);
  for (const timeS of struckS) {
    const from = Math.round(timeS * RATE);
    for (let n = 0; n < 0.45 * RATE && from + n < samples.length; n++) {
      const t = n / RATE;
      const partials = [82.41, 123.47].flatMap((hz) =>
        Array.from({ length: 12 }, (_, k) => [hz * (k + 1), k + 1]),
      );
      const sum = partials.reduce((s, [hz, k]) => s + Math.sin(2 * Math.PI * hz * t) / k ** 1.2, 0);
      samples[from + n] += 3500 * Math.exp(-5 * t) * sum;
    }
  }
  const head = Buffer.alloc(44);
  head.write('RIFF', 0);
  head.writeUInt32LE(36 + samples.byteLength, 4);
  head.write('WAVEfmt ', 8);
  head.writeUInt32LE(16, 16);
  head.writeUInt16LE(1, 20);
  head.writeUInt16LE(1, 22);
  head.writeUInt32LE(RATE, 24);
  head.writeUInt32LE(2 * RATE, 28);
  head.writeUInt16LE(2, 32);
  head.writeUInt16LE(16, 34);
  head.write('data', 36);
  head.writeUInt32LE(samples.byteLength, 40);
  return Buffer.concat([head, Buffer.from(samples.buffer)]);
}

describe('a take on the command line', () => {
  const folder = mkdtempSync(join(tmpdir(), 'wn-judge-'));
  afterAll(() => rmSync(folder, { recursive: true }));
  const file = (name: string, content: string | Buffer): string => {
    const path = join(folder, name);
    writeFileSync(path, content);
    return path;
  };
  const timesS = Array.from({ length: 12 }, (_, i) => 1 + i / 2);
  const written = file(
    'written.json',
    JSON.stringify({
      schema: 'wild-needle/written@1',
      tuning: { stringsMidi: [40, 45, 50, 55, 59, 64], capo: 0 },
      beatsS: timesS,
      strums: timesS.map((timeS) => ({
        ...{ timeS, durationS: 0.5, palmMute: false, dead: false },
        frets: [0, 2, null, null, null, null],
      })),
    }),
  );

  it('is told strum by strum: one was missed, one was late', async () => {
    const struck = timesS.map((t, i) => t + 0.04 + (i === 8 ? 0.06 : 0)).filter((_, i) => i !== 5);
    const take = file('take.wav', takeWav(struck, 8));
    const judged = await judgedBy([take, written, '--latency-ms', '40']);
    expect(judged.latencyMs).toBe(40);
    expect(judged.strums.map((s) => s.played)).toEqual(timesS.map((_, i) => i !== 5));
    expect(Math.abs((judged.strums[8].offsetMs ?? 0) - 60)).toBeLessThan(12);
    expect(Math.abs(judged.strums[2].offsetMs ?? 99)).toBeLessThan(12);
    expect(judged.summary.played).toBe(11);
  });

  it.each<[string, string[], RegExp]>([
    ['no files', [], /Give a take and what is written/],
    ['an option that there is none of', ['a', 'b', '--loud'], /Give a take and what is written/],
    ['a delay of words', ['a', 'b', '--latency-ms', 'long'], /--latency-ms must be from 0 to 1000/],
    ['a delay of minutes', ['a', 'b', '--latency-ms', '99999'], /--latency-ms must be from 0 to 1000/],
    ['a tab that is not there', ['a', '/none.json'], /can't be read/],
  ])('is refused in a sentence for %s', async (_, args, sentence) => {
    await expect(judgedBy(args)).rejects.toThrow(sentence);
  });
});
