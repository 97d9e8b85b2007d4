/** Imports by somebody who means no good, or by bad luck. */
import { execFile } from 'node:child_process';
import { existsSync, readdirSync, statSync } from 'node:fs';
import { request as httpRequest, type ClientRequest } from 'node:http';
import { join } from 'node:path';
import { promisify } from 'node:util';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  audioProblemCodeSchema,
  errorSchema,
  importAnswerSchema,
  openSongSchema,
} from '@wild-needle/contract';
import { RecordingChunkRow } from '../../db/models';
import { startTestServer, type TestServer } from '../../test/database';
import { toneFile } from '../../test/audio';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer({ jobs: 0 });
});
afterAll(() => server.stop());

function send(bytes: Uint8Array, query: string): Promise<Response> {
  return server.ask(`/api/recordings?${query}`, { method: 'POST', body: new Uint8Array(bytes) });
}

/** An upload that stops half way and stays there. */
async function hangingUpload(): Promise<ClientRequest> {
  const upload = httpRequest(`${server.url}/api/recordings?fileName=slow.wav`, {
    method: 'POST',
    headers: { 'content-length': 1_000_000 },
  });
  upload.on('error', () => undefined);
  await new Promise<void>((resolve) => upload.write(Buffer.alloc(100_000), () => resolve()));
  return upload;
}

describe('names that the database can not keep', () => {
  it.each([
    'fileName=a%00b.wav',
    'fileName=a.wav&title=NUL%00',
    'fileName=a.wav&artist=%00',
    'fileName=',
    'title=no-file-name',
  ])('are refused: %s', async (query) => {
    const answer = await send(toneFile('wav', 1), query);
    expect([answer.status, errorSchema.parse(await answer.json()).code]).toEqual([400, 'invalid-request']);
  });

  it('are cut between characters, not inside of one', async () => {
    const long = `${'x'.repeat(199)}\u{1F3B8}.wav`;
    const answer = await send(toneFile('wav', 1, 123), new URLSearchParams({ fileName: long }).toString());
    const { songId } = importAnswerSchema.parse(await answer.json());
    const song = openSongSchema.parse(await (await server.ask(`/api/songs/${songId}`)).json());
    expect(song.document.title).toBe(`X${'x'.repeat(198)}`);
  });
});

describe('what lies in the spool folder', () => {
  it('can be read by nobody else, and a slow upload holds nobody up', async () => {
    // More than there are connections to the database.
    const uploads = await Promise.all(Array.from({ length: 15 }, hangingUpload));
    const folder = server.config.spoolDir;
    await expect.poll(() => (existsSync(folder) ? readdirSync(folder).length : 0)).toBe(15);
    expect(statSync(folder).mode & 0o777).toBe(0o700);
    expect(readdirSync(folder).map((name) => statSync(join(folder, name)).mode & 0o777)).toEqual(
      Array.from({ length: 15 }, () => 0o600),
    );
    expect((await server.ask('/api/songs')).status).toBe(200);
    uploads.forEach((upload) => upload.destroy());
    await expect.poll(() => readdirSync(folder)).toEqual([]);
  });
});

it('takes or refuses every sequence of bytes with an answer of the table', async () => {
  const tone = toneFile('mp3', 1);
  const heads = ['RIFF', 'OggS', 'fLaC', 'ID3', '\xff\xfb', '....ftypM4A ', '\x1a\x45\xdf\xa3', '#EXTM3U\n'];
  const bytes = fc.oneof(
    fc.uint8Array({ maxLength: 300 }),
    fc
      .tuple(fc.constantFrom(...heads), fc.uint8Array({ maxLength: 300 }))
      .map(([head, rest]) => Buffer.concat([Buffer.from(head, 'latin1'), rest])),
    fc
      .array(fc.tuple(fc.nat(tone.length - 1), fc.nat(255)), { minLength: 1, maxLength: 40 })
      .map((changes) => {
        const changed = Buffer.from(tone);
        for (const [at, value] of changes) changed[at] = value;
        return changed;
      }),
  );
  await fc.assert(
    fc.asyncProperty(bytes, async (file) => {
      const answer = await send(file, 'fileName=any.wav');
      if (answer.ok) return;
      const { code } = errorSchema.parse(await answer.json());
      expect([answer.status, audioProblemCodeSchema.safeParse(code).success]).toEqual([422, true]);
    }),
    { numRuns: 25, seed: 18, endOnFailure: true },
  );
});

it('takes the sound of a song in again that came back from a backup without it', async () => {
  const bytes = toneFile('wav', 2, 87);
  const { recordingId, songId } = importAnswerSchema.parse(
    await (await send(bytes, 'fileName=a.wav')).json(),
  );
  await RecordingChunkRow.destroy({ where: { recordingId } });
  const address = `/api/recordings/${recordingId}/audio`;
  const mute = await server.ask(address);
  expect([mute.status, errorSchema.parse(await mute.json()).message]).toEqual([
    404,
    expect.stringContaining('Drop its file on the shelf once more'),
  ]);
  const again = importAnswerSchema.parse(await (await send(bytes, 'fileName=b.wav')).json());
  expect(again).toEqual({ songId, recordingId, alreadyKnown: true });
  expect(Buffer.from(await (await server.ask(address)).arrayBuffer()).equals(bytes)).toBe(true);
});

describe.skipIf(process.getuid?.() !== 0)('another user of this computer', () => {
  const askAs = async (uid: number): Promise<string> => {
    const ask = `fetch('${server.url}/api/songs').then(async (a) => console.log(a.status, await a.text()))`;
    const { stdout } = await promisify(execFile)(process.execPath, ['-e', ask], { uid, gid: uid, cwd: '/' });
    return stdout;
  };

  it('is not answered', async () => {
    const NOBODY = 65_534;
    expect(await askAs(NOBODY)).toMatch(/^403 .*another user of this computer/);
    expect(await askAs(0)).toMatch(/^200 /);
  });
});
