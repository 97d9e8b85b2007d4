import { spawnSync } from 'node:child_process';
import { chmodSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { TAKEN_ENDINGS } from '@wild-needle/contract';
import { toneFile } from '../test/audio';
import { floatsOf, playlistsTo, wavOf, withMediaIn } from '../test/odd-files';
import { AudioProblem } from './audio-problem';
import { decodeAudio } from './decode';
import { runTool, ToolFailure } from './run-tool';

const folder = mkdtempSync(join(tmpdir(), 'wn-decode-'));
let files = 0;
function file(bytes: Buffer | string, ending: string): string {
  const path = join(folder, `${files++}.${ending}`);
  writeFileSync(path, bytes);
  return path;
}
const problemOf = (path: string): Promise<unknown> =>
  decodeAudio(path, 22_050).then(
    (audio) => `taken as ${audio.codec}`,
    (error: unknown) => (error instanceof AudioProblem ? error.code : error),
  );
/** What ffmpeg itself makes of a file when nothing is forbidden: the tests below must be able to fail. */
const nativeFormat = (path: string): string =>
  spawnSync('ffprobe', ['-v', 'error', '-show_entries', 'format=format_name', '-of', 'csv=p=0', path], {
    encoding: 'utf8',
  }).stdout.trim();

describe('a file that names another file of the computer', () => {
  const secret = file(toneFile('ts', 3, 110, ['-c:a', 'aac', '-f', 'mpegts']), 'ts');

  it.each(['mp3', 'm3u8', 'mpd', 'wav', 'm4a'])('is not followed, called .%s', async (ending) => {
    for (const [format, text] of Object.entries(playlistsTo(secret))) {
      const path = file(text, ending);
      expect([format, await problemOf(path)]).toEqual([format, 'not-audio']);
    }
    expect(await problemOf(file(playlistsTo(`file://${secret}`).hls, ending))).toBe('not-audio');
  });

  it('would be by ffmpeg alone', () => {
    expect(nativeFormat(file(playlistsTo(secret).hls, 'mp3'))).toBe('hls');
    expect(nativeFormat(file(playlistsTo(secret).dash, 'mp3'))).toBe('dash');
  });

  it('is not followed from the data reference of a film', async () => {
    const mov = toneFile('mov', 3, 110, ['-c:a', 'pcm_s16le']);
    expect(await problemOf(file(mov, 'mov'))).toBe('taken as pcm_s16le');
    const elsewhere = file(withMediaIn(mov, secret), 'mov');
    expect(await problemOf(elsewhere)).toBe('empty');
    const { stderr } = spawnSync('ffprobe', ['-v', 'warning', elsewhere], { encoding: 'utf8' });
    expect(stderr).toContain('external track');
  });
});

describe('formats', () => {
  const VIDEO = ['-f', 'lavfi', '-i', 'testsrc=size=64x64:duration=2'];
  it.each([
    ['wav', []],
    ['flac', []],
    ['ogg', ['-c:a', 'libvorbis']],
    ['opus', []],
    ['mp3', []],
    ['m4a', ['-c:a', 'aac']],
    ['mp4', [...VIDEO, '-c:v', 'mpeg4', '-c:a', 'aac']],
    ['mov', [...VIDEO, '-c:v', 'mpeg4', '-c:a', 'aac']],
    ['mkv', [...VIDEO, '-c:v', 'mpeg4', '-c:a', 'flac']],
    ['webm', [...VIDEO, '-c:v', 'libvpx', '-c:a', 'libopus']],
  ])('take %s', async (ending, extra) => {
    expect(TAKEN_ENDINGS).toContain(`.${ending}`);
    expect(await problemOf(file(toneFile(ending, 2, 110, extra), ending))).toMatch(/^taken as/);
  });

  it.each([
    ['aiff', []],
    ['au', []],
    ['caf', []],
    ['avi', []],
    ['flv', ['-ar', '44100']],
    ['w64', []],
    ['ac3', []],
    ['adts', ['-f', 'adts']],
    ['m4a', ['-c:a', 'alac']],
    ['wav', ['-c:a', 'pcm_f64le']],
    ['wav', ['-c:a', 'adpcm_ms']],
  ])('refuse %s %j, which is not promised', async (ending, extra) => {
    const bytes = toneFile(ending, 2, 110, extra);
    expect(await problemOf(file(bytes, ending))).toBe('not-audio');
    // Nor under a name that is.
    expect(await problemOf(file(bytes, 'mp3'))).toBe('not-audio');
  });

  it('refuse the music of trackers, which ffmpeg of Debian plays', async () => {
    const module = Buffer.alloc(1084 + 1024 + 64, 0);
    module.write('invented', 0);
    module[950] = 1;
    module.write('M.K.', 1080);
    expect(await problemOf(file(module, 'mod'))).toBe('not-audio');
  });
});

describe('channels', () => {
  const oneSecond = (channels: number): Buffer =>
    wavOf(Buffer.alloc(22_050 * 2 * Math.min(channels, 70), 7), { channels });

  it.each([3, 6, 8])('take %i, mixed down to two', async (channels) => {
    const audio = await decodeAudio(file(oneSecond(channels), 'wav'), 22_050);
    expect(audio.channels).toHaveLength(2);
  });

  it.each([9, 32, 64, 1000, 65_535])('say that %i are too many', async (channels) => {
    expect(await problemOf(file(oneSecond(channels), 'wav'))).toBe('too-many-channels');
  });

  it('are needed', async () => {
    expect(await problemOf(file(wavOf(Buffer.alloc(1000), { channels: 0 }), 'wav'))).toBe('not-audio');
  });
});

describe('samples', () => {
  it.each([Infinity, -Infinity, NaN, 1e30])('of %d are no sound', async (value) => {
    expect(await problemOf(file(floatsOf(value), 'wav'))).toBe('broken-samples');
  });

  it('with a scratch of infinity are taken without it', async () => {
    const bytes = floatsOf(0.5);
    bytes.writeFloatLE(Infinity, 44 + 4 * 100);
    const { channels } = await decodeAudio(file(bytes, 'wav'), 22_050);
    expect(channels[0].every((v) => Math.abs(v) <= 1)).toBe(true);
  });
});

describe('a tool', () => {
  const hang = file('#!/bin/sh\nexec sleep 60\n', 'sh');
  const die = file('#!/bin/sh\nkill -KILL $$\n', 'sh');
  const talk = file('#!/bin/sh\nexec yes\n', 'sh');
  const write = file(`#!/bin/sh\necho secret > ${join(folder, 'written')}\n`, 'sh');
  const eat = file(
    "#!/bin/sh\nexec node --max-old-space-size=4000 -e 'const a=[]; for(;;) a.push(Buffer.alloc(50e6,1))'\n",
    'sh',
  );
  [hang, die, talk, write, eat].forEach((path) => chmodSync(path, 0o755));

  it('that hangs is ended with a sentence', async () => {
    const running = runTool(hang, [], () => undefined, { stallMs: 200 });
    await expect(running).rejects.toMatchObject({ code: 'too-slow', message: /took too long/ });
  });

  it('that is killed, or missing, is no fault of the file', async () => {
    await expect(runTool(die, [], () => undefined)).rejects.toThrow(ToolFailure);
    await expect(runTool('no-such-tool', [], () => undefined)).rejects.toThrow(/is missing; npm start/);
  });

  it('says no more than it may', async () => {
    let bytes = 0;
    const { code } = await runTool(talk, [], (chunk) => (bytes += chunk.length), { maxBytes: 100_000 });
    expect(code).toBe(0);
    expect(bytes).toBeGreaterThanOrEqual(100_000);
    expect(bytes).toBeLessThan(400_000);
  });

  it('writes no file, and gets no more than its memory', async () => {
    const ended = await runTool(write, [], () => undefined).catch((error: unknown) => error);
    expect(ended).toBeInstanceOf(ToolFailure);
    const starved = await runTool(eat, [], () => undefined).catch((error: unknown) => error);
    expect(starved instanceof ToolFailure || (starved as { code: number }).code !== 0).toBe(true);
  });
});
