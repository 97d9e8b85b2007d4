/** Puts a made song on the shelf of a running server as if it had been written there: recording, analysis, then its tab. */
import { importAnswerSchema, openSongSchema } from '@wild-needle/contract';
import { expect, type Page } from '@playwright/test';
import { renderDemoSong } from '../../demo/seed/render';
import type { DEMO_SONGS } from '../../demo/riffs/songs';
import { Shelf } from '../../e2e/support/pages';

export type MadeSong = (typeof DEMO_SONGS)[number];

/** The analysis of a song of some minutes takes this long on a busy core. */
const ANALYSIS_MS = 180_000;

export async function putSong(page: Page, base: string, song: MadeSong): Promise<void> {
  const { title } = song.document;
  const query = new URLSearchParams({ fileName: 'made.flac', title });
  const sent = await fetch(`${base}/api/recordings?${query.toString()}`, {
    method: 'POST',
    body: new Uint8Array(await renderDemoSong(song)),
  });
  const { songId, recordingId } = importAnswerSchema.parse(await sent.json());
  await new Shelf(page).open(base);
  await expect(new Shelf(page).song(title).getByText(/next: as it was heard/)).toBeVisible({
    timeout: ANALYSIS_MS,
  });
  const { revision } = openSongSchema.parse(await (await fetch(`${base}/api/songs/${songId}`)).json());
  const saved = await fetch(`${base}/api/songs/${songId}/document`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({
      baseRevision: revision,
      document: { ...song.document, recordings: [{ id: recordingId, isReference: true }] },
    }),
  });
  expect(saved.ok).toBe(true);
}
