/**
 * Requests of the tests. Every answer is held against the contract: against the OpenAPI document that clients read, and against
 * the table of routes, whose schema must know all that is in it.
 */
import { isDeepStrictEqual } from 'node:util';
import * as z from 'zod';
import { ROUTES, type Route } from '@wild-needle/contract';
import { findUndescribed } from './described';

export type Ask = (path: string, init?: RequestInit) => Promise<Response>;

const TABLE: readonly (Route & { readonly pattern: RegExp })[] = Object.values(ROUTES).map((route) => ({
  ...route,
  pattern: new RegExp(`^${route.path.replace(/:\w+/g, '[^/]+')}$`),
}));

/** A whole page of JSON at most: events go on for ever, bytes have no shape. */
function isJson(answer: Response): boolean {
  return answer.headers.get('content-type')?.startsWith('application/json') ?? false;
}

/** What the schema does not know would reach no client. */
function knowsAll(route: Route | undefined, answer: Response, body: unknown): boolean {
  const isPromised = answer.status === route?.status || answer.status === route?.orStatus?.status;
  if (!isPromised || !(route?.answer instanceof z.ZodType)) return true;
  return isDeepStrictEqual(JSON.parse(JSON.stringify(route.answer.parse(body))), body);
}

/** For a server at `url`. */
export function createAsk(url: string): Ask {
  return async (path, init = {}) => {
    const answer = await fetch(`${url}${path}`, init);
    const method = (init.method ?? 'GET').toLowerCase();
    const [address] = path.split('?');
    const body: unknown = isJson(answer) ? await answer.clone().json() : null;
    const wrong = findUndescribed(method, address, answer, body);
    const say = `${method} ${path} answered ${answer.status}`;
    if (wrong !== null) throw new Error(`${say}: ${wrong}`);
    const route = TABLE.find((r) => r.method === method && r.pattern.test(address));
    if (!knowsAll(route, answer, body)) throw new Error(`${say}: more than its schema promises`);
    return answer;
  };
}
