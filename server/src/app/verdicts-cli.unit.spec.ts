import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { verdictsOf } from './verdicts-cli';

describe('verdicts on the command line', () => {
  const folder = mkdtempSync(join(tmpdir(), 'wn-verdicts-'));
  afterAll(() => rmSync(folder, { recursive: true }));
  const file = (name: string, content: unknown): string => {
    const path = join(folder, name);
    writeFileSync(path, typeof content === 'string' ? content : JSON.stringify(content));
    return path;
  };
  const strum = { timeS: 1, durationS: 1, frets: [0, 2, 2, null, null, null], palmMute: false, dead: false };
  const written = {
    schema: 'wild-needle/written@1',
    tuning: { stringsMidi: [40, 45, 50, 55, 59, 64], capo: 0 },
    beatsS: [0, 1],
    strums: [strum],
  };

  it.each<[string, unknown, RegExp]>([
    ['no JSON', '{', /is not JSON/],
    ['another format', { ...written, schema: 'x' }, /is not wild-needle\/written@1: schema/],
    [
      'too few frets',
      { ...written, strums: [{ ...strum, frets: [0] }] },
      /each strum must have as many frets as the tuning has strings/,
    ],
    [
      'strums out of order',
      { ...written, strums: [{ ...strum, timeS: 2 }, strum] },
      /strums must be in order of time/,
    ],
    [
      'a fret beyond the neck',
      { ...written, strums: [{ ...strum, frets: [99, 2, 2, null, null, null] }] },
      /frets\.0/,
    ],
  ])('refuse %s in a sentence', async (name, content, sentence) => {
    await expect(verdictsOf(['tone.wav', file(`${name}.json`, content)])).rejects.toThrow(sentence);
  });

  it('ask for two files that can be read', async () => {
    await expect(verdictsOf(['one.wav'])).rejects.toThrow('Give a recording and what is written');
    await expect(verdictsOf(['one.wav', join(folder, 'none.json')])).rejects.toThrow("can't be read");
  });
});
