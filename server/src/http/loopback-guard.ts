/**
 * Who is answered: only loopback Host names (against DNS rebinding) and, where a browser names the page that asks,
 * only pages of this server (against requests forged by other sites). Before any routing and for every path, however it is
 * spelled: nothing may be asked from outside. Security headers through helmet.
 */
import type { RequestHandler } from 'express';
import helmet from 'helmet';
import { ForbiddenError, InvalidRequestError } from './errors';

const LOOPBACK_HOST = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/i;
/** By hand, as a bookmark, or by a page of this server (Fetch Metadata, W3C, section 2.3). */
const OWN_SITES = ['none', 'same-origin'];

export const onlyLoopback: RequestHandler = (request, _response, next) => {
  const { host, origin } = request.headers;
  const site = request.headers['sec-fetch-site'];
  if (!host || !LOOPBACK_HOST.test(host)) throw new ForbiddenError();
  if (origin !== undefined && origin !== `http://${host}`) throw new ForbiddenError();
  // A request that a foreign page makes without an Origin (an image, a link) says so here.
  if (site !== undefined && !OWN_SITES.includes(site)) throw new ForbiddenError();
  next();
};

/** A broken percent code (RFC 3986, section 2.1) names nothing. */
export const onlyReadablePaths: RequestHandler = (request, _response, next) => {
  try {
    decodeURIComponent(request.path);
  } catch {
    throw new InvalidRequestError([{ path: 'address', message: 'has a % that is no percent code' }]);
  }
  next();
};

/** 'wasm-unsafe-eval' lets the time stretcher and the networks compile their WebAssembly; styles are set by Angular Material. */
export const securityHeaders: RequestHandler = helmet({
  contentSecurityPolicy: {
    useDefaults: false,
    directives: {
      defaultSrc: ["'none'"],
      scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
      workerSrc: ["'self'"],
      styleSrc: ["'self'", "'unsafe-inline'"],
      imgSrc: ["'self'", 'data:'],
      fontSrc: ["'self'"],
      connectSrc: ["'self'"],
      mediaSrc: ["'self'"],
      baseUri: ["'self'"],
      formAction: ["'none'"],
      frameAncestors: ["'none'"],
    },
  },
  crossOriginEmbedderPolicy: { policy: 'require-corp' },
  // Served over plain HTTP on loopback.
  strictTransportSecurity: false,
});
