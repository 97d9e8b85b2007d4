import type { AddressInfo } from 'node:net';
import { setTimeout as wait } from 'node:timers/promises';
import express from 'express';
import { afterAll, describe, expect, it } from 'vitest';
import { bodyOf } from './body-of';
import { errorHandler } from './error-handler';

const CHUNK = 1_000_000;
const CHUNKS = 12;

/** A server whose disk is full after two chunks. */
const app = express();
app.use((request, _response, next) => {
  Object.assign(request, { log: { error: () => undefined } });
  next();
});
app.post('/', async (request, response) => {
  let bytes = 0;
  for await (const chunk of bodyOf(request, 'file')) {
    bytes += chunk.length;
    if (bytes > 2 * CHUNK) throw Object.assign(new Error('no space left on device'), { code: 'ENOSPC' });
  }
  response.json({ bytes });
});
app.use(errorHandler);
const server = app.listen(0, '127.0.0.1');

/** As a busy computer sends it: still on its way when the answer is there. */
async function* sentSlowly(chunks: number): AsyncGenerator<Uint8Array> {
  for (let i = 0; i < chunks; i++) {
    yield new Uint8Array(CHUNK);
    await wait(3);
  }
}

async function upload(chunks: number): Promise<{ status: number; body: unknown }> {
  const { port } = server.address() as AddressInfo;
  const answer = await fetch(`http://127.0.0.1:${port}/`, {
    method: 'POST',
    body: sentSlowly(chunks),
    duplex: 'half',
  } as unknown as RequestInit);
  return { status: answer.status, body: await answer.json() };
}

describe('an answer to a body that is still on its way', () => {
  afterAll(() => server.close());

  it('arrives, whatever the client has still to send', async () => {
    for (let i = 0; i < 10; i++) {
      expect(await upload(CHUNKS)).toMatchObject({ status: 507, body: { code: 'disk-full' } });
    }
  });

  it('is that of the whole body where it fits', async () => {
    expect(await upload(2)).toEqual({ status: 200, body: { bytes: 2 * CHUNK } });
  });
});
