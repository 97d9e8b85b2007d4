import { request as httpRequest } from 'node:http';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { errorSchema, importAnswerSchema, type ErrorBody, type ImportAnswer } from '@wild-needle/contract';
import { QueryTypes } from 'sequelize';
import { startTestServer, type TestServer } from '../../test/database';
import { toneFile } from '../../test/audio';
import { titleOf } from './import-recording';
import { CHUNK_BYTES } from './recordings.store';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer({ jobs: 0 });
});
afterAll(() => server.stop());

function send(bytes: Buffer, fileName: string): Promise<Response> {
  const query = new URLSearchParams({ fileName });
  return server.ask(`/api/recordings?${query.toString()}`, {
    method: 'POST',
    body: new Uint8Array(bytes),
  });
}
async function imported(bytes: Buffer, fileName: string): Promise<ImportAnswer> {
  return importAnswerSchema.parse(await (await send(bytes, fileName)).json());
}
async function refused(bytes: Buffer, fileName = 'x.wav'): Promise<ErrorBody & { status: number }> {
  const answer = await send(bytes, fileName);
  return { ...errorSchema.parse(await answer.json()), status: answer.status };
}
async function countRows(): Promise<number[]> {
  const tables = ['songs', 'recordings', 'recording_chunks', 'analyses'];
  return Promise.all(
    tables.map(async (table) => {
      const [row] = await server.services.sequelize.query<{ count: string }>(
        `SELECT count(*) FROM ${table}`,
        {
          type: QueryTypes.SELECT,
        },
      );
      return Number(row.count);
    }),
  );
}

describe('import', () => {
  it.each([
    ['mp3', []],
    ['flac', []],
    ['m4a', ['-c:a', 'aac']],
    ['ogg', ['-c:a', 'libvorbis']],
  ])('proposes the title and artist that %s says of itself', async (ending, extra) => {
    const said = ['-metadata', `title= Salt  Road\u0007 ${ending}`, '-metadata', 'artist=Low Tide Clerks'];
    const { songId } = await imported(toneFile(ending, 2, 130, [...extra, ...said]), 'track 07.x');
    const song = (await (await server.ask(`/api/songs/${songId}`)).json()) as { document: object };
    expect(song.document).toMatchObject({ title: `Salt Road ${ending}`, artist: 'Low Tide Clerks' });
  });

  it.each([
    ['wav', []],
    ['flac', []],
    ['ogg', ['-c:a', 'libvorbis']],
    ['opus', []],
    ['mp3', []],
    ['m4a', ['-c:a', 'aac']],
  ])('takes %s and gives the bytes back as they were', async (ending, extra) => {
    const bytes = toneFile(ending, 3, 110, extra);
    const { recordingId, alreadyKnown } = await imported(bytes, `tone.${ending}`);
    expect(alreadyKnown).toBe(false);
    const back = await server.ask(`/api/recordings/${recordingId}/audio`);
    expect(Buffer.from(await back.arrayBuffer()).equals(bytes)).toBe(true);
  });

  it('answers ranges over the borders of its chunks, and says which there are', async () => {
    const bytes = toneFile('wav', 5, 220);
    const { recordingId } = await imported(bytes, 'long.wav');
    const url = `/api/recordings/${recordingId}/audio`;
    for (const [start, end] of [
      [CHUNK_BYTES - 10, CHUNK_BYTES + 10],
      [0, 0],
      [bytes.length - 1, bytes.length - 1],
    ]) {
      const part = await server.ask(url, { headers: { Range: `bytes=${start}-${end}` } });
      expect(part.status).toBe(206);
      expect(part.headers.get('content-range')).toBe(`bytes ${start}-${end}/${bytes.length}`);
      expect(Buffer.from(await part.arrayBuffer()).equals(bytes.subarray(start, end + 1))).toBe(true);
    }
    const suffix = await server.ask(url, { headers: { Range: 'bytes=-100' } });
    expect(Buffer.from(await suffix.arrayBuffer()).equals(bytes.subarray(-100))).toBe(true);
    expect((await server.ask(url, { headers: { Range: `bytes=${bytes.length}-` } })).status).toBe(416);
  });

  it('recognises the same file by its hash', async () => {
    const bytes = toneFile('wav', 2, 330);
    const first = await imported(bytes, 'a.wav');
    const second = await imported(bytes, 'b.wav');
    expect(second).toEqual({ ...first, alreadyKnown: true });
  });

  it('keeps only the sound of a video, knows the video again, and what it says of itself', async () => {
    const pictures = ['-f', 'lavfi', '-i', 'testsrc=size=320x240:duration=3'];
    const codecs = ['-c:v', 'mpeg4', '-c:a', 'aac', '-metadata', 'title=Pier at noon'];
    const video = toneFile('mp4', 3, 140, [...pictures, ...codecs]);
    const { songId, recordingId } = await imported(video, 'clip.mp4');
    const kept = await (await server.ask(`/api/recordings/${recordingId}/audio`)).arrayBuffer();
    expect(kept.byteLength).toBeLessThan(video.length / 2);
    const song = (await (await server.ask(`/api/songs/${songId}`)).json()) as { document: object };
    expect(song.document).toMatchObject({ title: 'Pier at noon' });
    expect(await imported(video, 'again.mp4')).toEqual({ songId, recordingId, alreadyKnown: true });
    expect(await imported(Buffer.from(kept), 'sound.m4a')).toMatchObject({ recordingId, alreadyKnown: true });
  });

  it('stores the same file once when it comes in twice at a time', async () => {
    const bytes = toneFile('wav', 2, 440);
    const answers = await Promise.all([imported(bytes, 'a.wav'), imported(bytes, 'b.wav')]);
    expect(answers[0].songId).toBe(answers[1].songId);
  });

  it('refuses what can not be used with a code and a sentence, and keeps nothing of it', async () => {
    const before = await countRows();
    const cases: [Buffer, string, RegExp][] = [
      [
        Buffer.from('Dear band, please find enclosed'),
        'not-audio',
        /These work: WAV, FLAC, OGG \(Vorbis, Opus\), MP3 and M4A \(AAC\), and the sound of MP4 and WebM videos/,
      ],
      [Buffer.alloc(0), 'empty', /0 bytes/],
      ...['wav', 'flac', 'ogg', 'opus', 'mp3', 'm4a'].map((ending): [Buffer, string, RegExp] => {
        const whole = toneFile(ending, 4, 550);
        return [whole.subarray(0, whole.length / 2), 'cut-off', /This file is cut off: .+ Copy or download/];
      }),
      [toneFile('flac', 4, 0), 'silent', /silent/],
      [toneFile('flac', 31 * 60, 110, ['-ar', '8000']), 'too-long', /31 minutes long; up to 30/],
    ];
    // Making the files has blocked this process: connections that the server closed meanwhile are noticed now.
    await new Promise((resolve) => setTimeout(resolve, 50));
    for (const [bytes, code, message] of cases) {
      const answer = await refused(bytes);
      expect([answer.code, answer.status]).toEqual([code, 422]);
      expect(answer.message).toMatch(message);
    }
    expect(await countRows()).toEqual(before);
  });

  it('refuses more than 500 MB before it is sent', async () => {
    const status = await new Promise<number | undefined>((resolve, reject) => {
      const upload = httpRequest(`${server.url}/api/recordings?fileName=x.wav`, {
        method: 'POST',
        headers: { 'content-length': 500_000_001 },
      });
      upload.on('response', (response) => {
        resolve(response.statusCode);
        upload.destroy();
      });
      upload.on('error', reject);
      upload.flushHeaders();
    });
    expect(status).toBe(422);
  });

  it('keeps nothing of an upload whose connection is lost', async () => {
    const before = await countRows();
    await new Promise<void>((resolve) => {
      const upload = httpRequest(`${server.url}/api/recordings?fileName=x.wav`, {
        method: 'POST',
        headers: { 'content-length': 5_000_000 },
      });
      upload.on('error', () => resolve());
      upload.write(Buffer.alloc(2_000_000, 1), () =>
        setTimeout(() => upload.destroy(new Error('gone')), 300),
      );
    });
    await expect.poll(countRows).toEqual(before);
  });

  it('draws an outline of one byte per 5 ms', async () => {
    const { recordingId } = await imported(toneFile('wav', 2, 660), 'outline.wav');
    const envelope = await server.ask(`/api/recordings/${recordingId}/envelope`);
    const bytes = new Uint8Array(await envelope.arrayBuffer());
    expect(bytes).toHaveLength(400);
    expect(bytes[200]).toBeGreaterThan(240);
  });

  it.each([
    ['gravel_choir-take-2.flac', 'Gravel choir take 2'],
    ['.mp3', '.mp3'],
    ['___.wav', 'Untitled'],
  ])('makes a title of %s', (fileName, title) => {
    expect(titleOf(fileName)).toBe(title);
  });
});
