/** Songs of the campaigns, over the HTTP API. */
import { importAnswerSchema, openSongSchema, type OpenSong } from '@wild-needle/contract';
import type { SongDocument } from '@wild-needle/core/riff';
import { wavOf } from '../../server/src/test/odd-files';

/** Seconds of a tone that no other call makes, as a WAV. */
export function tone(freqHz: number, seconds: number): Buffer {
  const rate = 22_050;
  const samples = Buffer.alloc(2 * rate * seconds);
  for (let i = 0; i < rate * seconds; i++) {
    samples.writeInt16LE(Math.round(12_000 * Math.sin((2 * Math.PI * freqHz * i) / rate)), 2 * i);
  }
  return wavOf(samples, { rate });
}

export async function importSong(
  url: string,
  bytes: Buffer,
  name: string,
): Promise<{ songId: string; recordingId: string }> {
  const answer = await fetch(`${url}/api/recordings?fileName=${encodeURIComponent(name)}`, {
    method: 'POST',
    body: new Uint8Array(bytes),
  });
  return importAnswerSchema.parse(await answer.json());
}

/** Waits while the database is away: a killed one answers for a moment longer, and then not until it is back. */
export async function openSong(url: string, id: string): Promise<OpenSong> {
  for (;;) {
    const answer = await fetch(`${url}/api/songs/${id}`);
    if (answer.status !== 503) return openSongSchema.parse(await answer.json());
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
}

/** The answer, or null where none came. */
export async function saveSong(
  url: string,
  id: string,
  baseRevision: number,
  document: SongDocument,
): Promise<Response | null> {
  return fetch(`${url}/api/songs/${id}/document`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ baseRevision, document }),
  }).catch(() => null);
}
