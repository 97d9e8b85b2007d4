/** Hostile requests, and who may ask at all: every answer is described, none is a fault of the server. */
import { request } from 'node:http';
import { ROUTES } from '@wild-needle/contract';
import { findUndescribed } from '../../server/src/test/described';
import type { Chance } from './chance';
import type { System } from './system';

export interface RequestFigures {
  requests: number;
  byStatus: Record<string, number>;
  odd: string[];
}

const PARTS = [
  '%',
  '%00',
  '%E0%A4%A',
  '..',
  '%2e%2e%2f',
  "'; DROP TABLE songs --",
  '{}',
  '\u{1F3B8}',
  'x'.repeat(3000),
  '3fa85f64-5717-4562-b3fc-2c963f66afa6',
];
const BODIES = [
  '',
  '{',
  '[]',
  'null',
  '"x"',
  '{"baseRevision":1e999}',
  '{"__proto__":{"x":1}}',
  '['.repeat(20_000),
  '{"document":{"title":"\\u0000"}}',
  'x'.repeat(100_000),
];
const TYPES = [
  'application/json',
  'text/plain',
  'application/json; charset=utf-7',
  'multipart/form-data',
  '',
];
const METHODS = ['GET', 'PUT', 'POST', 'DELETE', 'PATCH', 'HEAD', 'OPTIONS'];

/** Any path as it is: `fetch` would tidy it first. */
function ask(
  url: string,
  path: string,
  {
    method = 'GET',
    headers = {},
    body = '',
  }: { method?: string; headers?: Record<string, string>; body?: string },
): Promise<Response> {
  return new Promise((resolve, reject) => {
    const { hostname, port } = new URL(url);
    // Node leaves the length out for some methods, and what follows would be taken for another request.
    const all = { ...headers, 'content-length': String(Buffer.byteLength(body)) };
    const asked = request({ hostname, port, path, method, headers: all, agent: false }, (answer) => {
      const isEndless = answer.headers['content-type']?.startsWith('text/event-stream');
      const done = (text: string): void => {
        const isEmpty = text === '' || [204, 304].includes(answer.statusCode ?? 0);
        const facts = { status: answer.statusCode, headers: answer.headers as Record<string, string> };
        resolve(new Response(isEmpty ? null : text, facts));
      };
      if (isEndless) {
        answer.destroy();
        done('');
        return;
      }
      let text = '';
      answer.on('data', (chunk: Buffer) => (text += chunk.toString()));
      answer.on('end', () => done(text));
      answer.on('error', reject);
    });
    asked.on('error', reject);
    asked.end(body);
  });
}

async function judge(path: string, method: string, answer: Response): Promise<string | null> {
  if (answer.status >= 500) return `${method} ${path.slice(0, 80)}: ${answer.status}`;
  if (!path.startsWith('/api/') || method === 'HEAD' || method === 'OPTIONS') return null;
  const isJson = answer.headers.get('content-type')?.startsWith('application/json');
  const body: unknown = isJson ? await answer.json() : null;
  const wrong = findUndescribed(method.toLowerCase(), path.split('?')[0], answer, body);
  return wrong === null ? null : `${method} ${path.slice(0, 80)} (${answer.status}): ${wrong}`;
}

function count(figures: RequestFigures, { status }: Response): void {
  figures.requests++;
  figures.byStatus[status] = (figures.byStatus[status] ?? 0) + 1;
}

export async function askHostile({ url }: System, chance: Chance, requests: number): Promise<RequestFigures> {
  const figures: RequestFigures = { requests: 0, byStatus: {}, odd: [] };
  const routes = Object.values(ROUTES);
  for (let i = 0; i < requests; i++) {
    const route = chance.of(routes);
    // As a client would write it: bare letters only.
    const part = encodeURI(chance.of(PARTS)).replace(/%25/g, '%');
    const filled = route.path.replace(/:\w+/g, () => part);
    const path = `${filled}${chance.next() < 0.2 ? `/${part}` : ''}${chance.next() < 0.3 ? `?fileName=${part}&title=${part}` : ''}`;
    const method = chance.next() < 0.6 ? route.method.toUpperCase() : chance.of(METHODS);
    const type = chance.of(TYPES);
    const answer = await ask(url, path, {
      method,
      headers: {
        ...(type && { 'content-type': type }),
        ...(chance.next() < 0.2 && { range: 'bytes=9-1,-,x' }),
      },
      body: method === 'GET' || method === 'HEAD' ? '' : chance.of(BODIES),
    });
    count(figures, answer);
    const odd = await judge(path, method, answer);
    if (odd) figures.odd.push(odd);
  }
  return figures;
}

/** Hosts, pages and sites that ask; those of this computer and this server alone are answered. */
export async function askFromOutside({ url }: System): Promise<RequestFigures> {
  const figures: RequestFigures = { requests: 0, byStatus: {}, odd: [] };
  const own = new URL(url).host;
  const hosts = [
    own,
    'localhost',
    '127.0.0.1',
    'rebound.example',
    '127.0.0.1.example',
    'localhost.example:80',
    '0.0.0.0',
    '192.168.0.2',
  ];
  const origins = [undefined, 'own', 'null', 'https://example.org', 'http://localhost:1', `https://${own}`];
  const sites = [undefined, 'none', 'same-origin', 'same-site', 'cross-site', 'CROSS-SITE', 'x'];
  const isOwnHost = (host: string): boolean => [own, 'localhost', '127.0.0.1'].includes(host);
  for (const path of ['/api/songs', '/API/songs', '/']) {
    for (const host of hosts) {
      for (const origin of origins) {
        for (const site of sites) {
          const from = origin === 'own' ? `http://${host}` : origin;
          const answer = await ask(url, path, {
            headers: {
              host,
              ...(from !== undefined && { origin: from }),
              ...(site !== undefined && { 'sec-fetch-site': site }),
            },
          });
          count(figures, answer);
          const may =
            isOwnHost(host) &&
            (origin === undefined || origin === 'own') &&
            (site === undefined || site === 'none' || site === 'same-origin');
          const expected = may ? 200 : 403;
          if (answer.status !== expected)
            figures.odd.push(`${path} ${host} ${origin} ${site}: ${answer.status}`);
        }
      }
    }
  }
  return figures;
}
