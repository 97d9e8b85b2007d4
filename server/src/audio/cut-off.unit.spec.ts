import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { findCutOff, type CutOff } from './cut-off';

const folder = mkdtempSync(join(tmpdir(), 'wn-cut-'));
let files = 0;
function check(bytes: Buffer): Promise<CutOff | null> {
  const path = join(folder, String(files++));
  writeFileSync(path, bytes);
  return findCutOff(path);
}

/** A chunk before the data, of odd length and padded, as some recorders write. */
function wav(dataBytes: number, declared = dataBytes): Buffer {
  const head = Buffer.alloc(12);
  head.write('RIFF', 0);
  head.write('WAVE', 8);
  const note = Buffer.alloc(8 + 6);
  note.write('note', 0);
  note.writeUInt32LE(5, 4);
  const data = Buffer.alloc(8 + dataBytes);
  data.write('data', 0);
  data.writeUInt32LE(declared, 4);
  return Buffer.concat([head, note, data]);
}

function oggPage(flags: number, payload: number): Buffer {
  const page = Buffer.alloc(28 + payload);
  page.write('OggS', 0);
  page[5] = flags;
  page[26] = 1;
  page[27] = payload;
  return page;
}

function box(type: string, payload: number): Buffer {
  const bytes = Buffer.alloc(8 + payload);
  bytes.writeUInt32BE(8 + payload, 0);
  bytes.write(type, 4);
  return bytes;
}

describe('a cut WAV', () => {
  it('holds less than its data chunk says', async () => {
    expect(await check(wav(1000))).toBeNull();
    expect((await check(wav(500, 1000)))?.share).toBeCloseTo(0.52, 1);
  });

  it('is not one whose length was left open, or is off by a few bytes', async () => {
    expect(await check(wav(1000, 0xffffffff))).toBeNull();
    expect(await check(wav(1000, 0))).toBeNull();
    expect(await check(wav(9990, 10000))).toBeNull();
  });
});

describe('a cut Ogg', () => {
  it('has no last page, or half of it', async () => {
    const whole = Buffer.concat([oggPage(2, 50), oggPage(0, 200), oggPage(4, 60)]);
    expect(await check(whole)).toBeNull();
    expect(await check(whole.subarray(0, whole.length - 10))).toEqual({ share: null });
    expect(await check(Buffer.concat([oggPage(2, 50), oggPage(0, 200)]))).toEqual({ share: null });
  });
});

describe('a cut M4A', () => {
  const whole = Buffer.concat([box('ftyp', 16), box('mdat', 2000), box('moov', 100)]);

  it('ends inside of a box', async () => {
    expect(await check(whole)).toBeNull();
    expect((await check(whole.subarray(0, 1000)))?.share).toBeCloseTo(0.49, 1);
    expect(await check(whole.subarray(0, whole.length - 1))).toEqual({ share: null });
  });

  it('may have a last box that reaches to the end', async () => {
    const open = box('mdat', 300);
    open.writeUInt32BE(0, 0);
    expect(await check(Buffer.concat([box('ftyp', 16), open]))).toBeNull();
  });
});

describe('other files', () => {
  it.each([
    ['nothing', Buffer.alloc(0)],
    ['a letter', Buffer.from('Dear band, please find enclosed')],
  ])('say nothing about their length: %s', async (_, bytes) => {
    expect(await check(bytes)).toBeNull();
  });
});
