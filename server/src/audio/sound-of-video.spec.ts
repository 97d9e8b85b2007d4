/** Reference check: ffmpeg's own decoder hears the same samples in the video and in the sound that was copied out of it. */
import { createHash } from 'node:crypto';
import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { toneFile } from '../test/audio';
import { copySoundOut } from './sound-of-video';

const PICTURES = ['-f', 'lavfi', '-i', 'testsrc=size=320x240:duration=3'];

function videoFile(ending: string, extra: readonly string[]): string {
  const path = join(mkdtempSync(join(tmpdir(), 'wn-video-')), `clip.${ending}`);
  writeFileSync(path, toneFile(ending, 3, 110, extra));
  return path;
}

/** Samples as ffmpeg decodes them, 16 bits. */
function decoded(path: string): Buffer {
  const { stdout, status } = spawnSync(
    'ffmpeg',
    ['-v', 'error', '-i', path, '-map', '0:a', '-f', 's16le', '-'],
    {
      maxBuffer: 1e8,
    },
  );
  expect(status).toBe(0);
  return stdout;
}

function streamsOf(path: string): string[] {
  const { stdout } = spawnSync('ffprobe', [
    '-v',
    'error',
    '-show_entries',
    'stream=codec_type',
    '-of',
    'csv=p=0',
    path,
  ]);
  return stdout.toString().trim().split('\n');
}

describe('sound of a video', () => {
  it.each([
    ['mp4', ['-c:v', 'mpeg4', '-c:a', 'aac']],
    ['mov', ['-c:v', 'mpeg4', '-c:a', 'pcm_s16be']],
    ['mkv', ['-c:v', 'mpeg4', '-c:a', 'flac']],
    ['webm', ['-c:v', 'libvpx', '-c:a', 'libopus']],
  ])('is copied out of %s without a change, and the same each time', async (ending, codecs) => {
    const path = videoFile(ending, [...PICTURES, ...codecs]);
    const [one, two] = [`${path}.1`, `${path}.2`];
    expect(await copySoundOut(path, one)).toBe(true);
    expect(streamsOf(one)).toEqual(['audio']);
    expect(decoded(one).equals(decoded(path))).toBe(true);
    expect(statSync(one).size).toBeLessThan(statSync(path).size);
    await copySoundOut(path, two);
    const hash = (file: string): string => createHash('sha256').update(readFileSync(file)).digest('hex');
    expect(hash(two)).toBe(hash(one));
  });

  it('stays where it is in a file without moving pictures, with a cover too', async () => {
    const cover = [
      '-f',
      'lavfi',
      '-i',
      'color=red:size=64x64:duration=0.04',
      '-frames:v',
      '1',
      '-c:v',
      'mjpeg',
    ];
    for (const path of [
      videoFile('m4a', ['-c:a', 'aac']),
      videoFile('mp3', [...cover, '-disposition:v', 'attached_pic']),
    ]) {
      expect(await copySoundOut(path, `${path}.1`)).toBe(false);
      expect(existsSync(`${path}.1`)).toBe(false);
    }
  });
});
