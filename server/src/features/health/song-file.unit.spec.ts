import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { describeSongFile } from '@wild-needle/contract';

const PATH = join(import.meta.dirname, '../../../../docs/song-file.schema.json');

describe('the song file', () => {
  it('is described in docs as it is checked here; WN_WRITE_SCHEMA=1 writes that anew', () => {
    const described = JSON.parse(JSON.stringify(describeSongFile())) as object;
    if (process.env['WN_WRITE_SCHEMA']) writeFileSync(PATH, `${JSON.stringify(described, null, 2)}\n`);
    expect(JSON.parse(readFileSync(PATH, 'utf8'))).toEqual(described);
  });
});
