/** Loads the demo songs into a running server over its HTTP API: `tsx demo/seed/main.ts PORT`. */
import { openSongSchema, importAnswerSchema } from '@wild-needle/contract';
import { DEMO_SONGS, type DemoSong } from '../riffs/songs';
import { renderDemoSong } from './render';

/** Replaces the song's document; again when the analysis has written its draft in between. */
async function writeDocument(
  base: string,
  { document }: DemoSong,
  songId: string,
  recordingId: string,
): Promise<void> {
  for (;;) {
    const opened = openSongSchema.parse(await (await fetch(`${base}/api/songs/${songId}`)).json());
    const answer = await fetch(`${base}/api/songs/${songId}/document`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({
        baseRevision: opened.revision,
        document: { ...document, recordings: [{ id: recordingId, isReference: true }] },
      }),
    });
    if (answer.ok) return;
    if (answer.status !== 409)
      throw new Error(`${document.title} could not be saved: ${await answer.text()}`);
  }
}

async function load(base: string, song: DemoSong): Promise<void> {
  const file = await renderDemoSong(song);
  const { title, artist } = song.document;
  const query = new URLSearchParams({ fileName: song.fileName, title, artist });
  const answer = await fetch(`${base}/api/recordings?${query}`, {
    method: 'POST',
    body: new Uint8Array(file),
  });
  const { songId, recordingId } = importAnswerSchema.parse(await answer.json());
  // The others are left to be worked out.
  if (song.transcribed) await writeDocument(base, song, songId, recordingId);
}

const port = Number(process.argv[2]);
// The last one loaded stands on top of the shelf: the finished transcription.
for (const song of [...DEMO_SONGS].reverse()) await load(`http://127.0.0.1:${port}`, song);
