/**
 * Requests of the tests, each held against the contract: an answer has the status and the very shape that the table of routes
 * promises, or is an error with a code.
 */
import { isDeepStrictEqual } from 'node:util';
import * as z from 'zod';
import { errorSchema, ROUTES, type Route } from '@wild-needle/contract';

export type Ask = (path: string, init?: RequestInit) => Promise<Response>;

const TABLE: readonly (Route & { readonly pattern: RegExp })[] = Object.values(ROUTES).map((route) => ({
  ...route,
  pattern: new RegExp(`^${route.path.replace(/:\w+/g, '[^/]+')}$`),
}));

/** A whole page of JSON at most: events go on for ever, bytes have no shape. */
function isJson(answer: Response): boolean {
  return answer.headers.get('content-type')?.startsWith('application/json') ?? false;
}

function check(route: Route | undefined, path: string, answer: Response, body: unknown): void {
  const say = (what: string): never => {
    throw new Error(`${route?.method ?? 'any'} ${path} answered ${answer.status}: ${what}`);
  };
  const statuses = route ? [route.status, route.orStatus?.status] : [];
  if (!statuses.includes(answer.status)) {
    // Ranges are RFC 9110's, not the table's.
    if ([206, 416].includes(answer.status) && route?.answer === 'application/octet-stream') return;
    const error = errorSchema.strict().safeParse(body);
    if (answer.status < 400 || !error.success) say('neither a promised status nor an error with a code');
    return;
  }
  if (!(route?.answer instanceof z.ZodType)) return;
  const parsed = route.answer.safeParse(body);
  if (!parsed.success) return say(JSON.stringify(parsed.error.issues[0]));
  // What the schema does not know would reach no client.
  if (!isDeepStrictEqual(JSON.parse(JSON.stringify(parsed.data)), body)) say('more than its schema promises');
}

/** For a server at `url`. */
export function createAsk(url: string): Ask {
  return async (path, init = {}) => {
    const answer = await fetch(`${url}${path}`, init);
    const method = (init.method ?? 'GET').toLowerCase();
    const [address] = path.split('?');
    const route = TABLE.find((r) => r.method === method && r.pattern.test(address));
    check(route, address, answer, isJson(answer) ? await answer.clone().json() : null);
    return answer;
  };
}
