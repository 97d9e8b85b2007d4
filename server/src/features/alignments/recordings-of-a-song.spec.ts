import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  alignmentSchema,
  createAnswerSchema,
  importAnswerSchema,
  openSongSchema,
  type ImportAnswer,
  type OpenSong,
  type RecordingAlignment,
} from '@wild-needle/contract';
import { timeMapOf } from '@wild-needle/core/alignment';
import { PLAIN_SONG } from '@wild-needle/core/riff';
import { createRandom } from '@wild-needle/core/units';
import { startTestServer, type TestServer } from '../../test/database';
import { progressionFile } from '../../test/progression';

let server: TestServer;
let album: ImportAnswer;

const rootsOf = (seed: number): number[] => {
  const random = createRandom(seed);
  return Array.from({ length: 40 }, () => 40 + Math.floor(12 * random()));
};
async function send(bytes: Buffer, query: Record<string, string>): Promise<Response> {
  return server.ask(`/api/recordings?${new URLSearchParams(query).toString()}`, {
    method: 'POST',
    body: new Uint8Array(bytes),
  });
}
const imported = async (bytes: Buffer, query: Record<string, string>): Promise<ImportAnswer> =>
  importAnswerSchema.parse(await (await send(bytes, query)).json());
const open = async (id: string): Promise<OpenSong> =>
  openSongSchema.parse(await (await server.ask(`/api/songs/${id}`)).json());
const alignmentOf = async (id: string): Promise<RecordingAlignment> =>
  alignmentSchema.parse(await (await server.ask(`/api/recordings/${id}/alignment`)).json());

beforeAll(async () => {
  server = await startTestServer({ jobs: 0 });
  album = await imported(progressionFile(rootsOf(1), 0.5), { fileName: 'album.wav' });
});
afterAll(() => server.stop());

describe('another recording of a song', () => {
  it('belongs to it, behind the reference, and is laid along it once', async () => {
    const live = await imported(progressionFile(rootsOf(1), 0.54, 3), {
      fileName: 'live.wav',
      songId: album.songId,
    });
    expect(live.songId).toBe(album.songId);
    const song = await open(album.songId);
    expect(song.recordings.map((r) => r.fileName)).toEqual(['album.wav', 'live.wav']);
    expect(song.recording?.id).toBe(album.recordingId);
    expect(song.revision).toBe(1);

    const alignment = await alignmentOf(live.recordingId);
    if (!alignment.belongs) throw new Error('it is the same song');
    const map = timeMapOf(alignment, { referenceS: 20, otherS: 24.6 });
    expect(Math.abs(map.toOther(10) - 13.8)).toBeLessThan(0.02);
    // Kept: the second answer is the first.
    const { align } = { align: await alignmentOf(live.recordingId) };
    expect(align).toEqual(alignment);
  });

  it('of another song is told, and can be removed; the reference can not', async () => {
    const other = await imported(progressionFile(rootsOf(9), 0.47), {
      fileName: 'other.wav',
      songId: album.songId,
    });
    expect(await alignmentOf(other.recordingId)).toMatchObject({ belongs: false });
    const remove = async (id: string): Promise<number> =>
      (await server.ask(`/api/recordings/${id}`, { method: 'DELETE' })).status;
    expect(await remove(album.recordingId)).toBe(409);
    expect(await remove(other.recordingId)).toBe(204);
    expect(await remove(other.recordingId)).toBe(404);
    expect((await open(album.songId)).recordings).toHaveLength(2);
  });

  it('is the reference where the song had none', async () => {
    const created = await server.ask('/api/songs', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ document: { ...PLAIN_SONG, title: 'Brought in' } }),
    });
    const { songId } = createAnswerSchema.parse(await created.json());
    const first = await imported(progressionFile(rootsOf(5), 0.5), { fileName: 'first.wav', songId });
    const song = await open(songId);
    expect(song.recording?.id).toBe(first.recordingId);
    expect(song.document.recordings).toEqual([{ id: first.recordingId, isReference: true }]);
  });

  it('needs a song that there is, and nothing is half there without one', async () => {
    const before = (await open(album.songId)).recordings.length;
    const answer = await send(progressionFile(rootsOf(7), 0.5), { fileName: 'x.wav', songId: randomUUID() });
    expect(answer.status).toBe(404);
    expect((await open(album.songId)).recordings).toHaveLength(before);
    expect((await server.ask(`/api/recordings/${randomUUID()}/alignment`)).status).toBe(404);
  });
});
