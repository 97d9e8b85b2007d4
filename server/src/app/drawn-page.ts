/**
 * The sheet as a file without the application being open: its pages are laid out by the application itself, in a Chromium that nobody sees and
 * that asks nobody outside of this process. So a page is drawn in one place.
 */
import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { randomUUID } from 'node:crypto';
import { extname, join, normalize } from 'node:path';
import { chromium, type Route } from 'playwright-core';
import { addressOf, pdfRequestSchema, ROUTES, type OpenSong } from '@wild-needle/contract';
import type { SongDocument } from '@wild-needle/core/riff';
import { makePdf } from '../features/pdf/make-pdf';

const WEB = join(import.meta.dirname, '../../../web/dist/browser');
/** Debian's. */
const CHROMIUM = '/usr/bin/chromium';
/** Nothing listens there: every request is answered here. */
const ORIGIN = 'http://127.0.0.1:9';
const WITHIN_MS = 60_000;

const MIMES: Readonly<Record<string, string>> = {
  '.html': 'text/html',
  '.js': 'text/javascript',
  '.mjs': 'text/javascript',
  '.css': 'text/css',
  '.svg': 'image/svg+xml',
  '.woff2': 'font/woff2',
  '.woff': 'font/woff',
};

/** What the application would get from its server: this song and nothing else. */
async function answer(route: Route, song: OpenSong): Promise<void> {
  const request = route.request();
  const { pathname } = new URL(request.url());
  if (pathname === addressOf('openSong', { id: song.id })) return route.fulfill({ json: song });
  if (pathname === ROUTES.listSongs.path || pathname === ROUTES.listShapes.path) {
    return route.fulfill({ json: [] });
  }
  if (pathname === ROUTES.makePdf.path) {
    const pages = pdfRequestSchema.parse(request.postDataJSON());
    return route.fulfill({ contentType: 'application/pdf', body: await makePdf(pages) });
  }
  if (pathname.startsWith('/api/')) return route.abort();
  const file = join(WEB, normalize(pathname));
  const isFile = extname(pathname) !== '' && existsSync(file);
  const path = isFile ? file : join(WEB, 'index.html');
  const contentType = MIMES[extname(path)] ?? 'application/octet-stream';
  return route.fulfill({ contentType, body: await readFile(path) });
}

/** `svg`: the first page, fonts inside; `pdf`: all of them. Throws a RangeError that says what would work. */
export async function drawSheet(document: SongDocument, ending: 'svg' | 'pdf'): Promise<Uint8Array> {
  if (!existsSync(join(WEB, 'index.html'))) {
    throw new RangeError('A page is drawn by the application, which is not built: run npm run build first');
  }
  if (!existsSync(CHROMIUM)) {
    throw new RangeError('A page is drawn by a browser: install the Debian package chromium first');
  }
  if (document.riffs.every((riff) => riff.strums.length === 0)) {
    throw new RangeError('Nothing is written in this song: its page is empty');
  }
  const song: OpenSong = {
    ...{ id: randomUUID(), revision: 1, savedAt: new Date().toISOString(), document },
    ...{ recording: null, recordings: [], job: null },
  };
  const browser = await chromium.launch({
    executablePath: CHROMIUM,
    // Root may not use the sandbox; the page is our own.
    args: process.getuid?.() === 0 ? ['--no-sandbox'] : [],
  });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, acceptDownloads: true });
    page.setDefaultTimeout(WITHIN_MS);
    await page.route('**/*', (route) => answer(route, song));
    await page.goto(`${ORIGIN}/songs/${song.id}/sheet`);
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: new RegExp(`^Sheet\\s*\\.${ending}`) }).click();
    return await readFile(await (await download).path());
  } finally {
    await browser.close();
  }
}
