import type { RequestHandler } from 'express';
import helmet from 'helmet';
import { sendProblem } from './problems.js';

const LOOPBACK = new Set(['127.0.0.1', 'localhost', '[::1]']);

const hostName = (host: string) => host.replace(/:\d+$/, '').toLowerCase();

/** The host of a request line that names one (GET http://…), which counts in place of the header (RFC 9112, 3.2.2); null of a plain path. */
function hostOfLine(url: string): string | null {
  if (url.startsWith('/')) return null;
  return URL.canParse(url) ? new URL(url).host : '';
}

/**
 * Answers only to the machine's own names, and only to pages it served itself: another site in the same browser can neither read
 * (Host, against rebinding) nor write (Origin).
 */
export const ownOriginOnly: RequestHandler = (req, res, next) => {
  const host = (hostOfLine(req.url) ?? req.headers.host ?? '').toLowerCase();
  const { origin } = req.headers;
  const refuse = (detail: string) => sendProblem(res, { status: 403, title: 'Refused', detail, code: 'other-origin' });
  if (!LOOPBACK.has(hostName(host)))
    return refuse('Verdict is available on this machine only, at 127.0.0.1 or localhost.');
  if (origin !== undefined && origin.toLowerCase() !== `http://${host}`)
    return refuse('This request comes from another origin.');
  if (req.headers['sec-fetch-site'] === 'cross-site' && req.method !== 'GET')
    return refuse('This request comes from another site.');
  next();
};

/** Scripts and workers only from here; inline styles are what the component library positions with. */
export const headers: RequestHandler = helmet({
  contentSecurityPolicy: {
    useDefaults: false,
    directives: {
      defaultSrc: ["'self'"],
      scriptSrc: ["'self'"],
      workerSrc: ["'self'"],
      styleSrc: ["'self'", "'unsafe-inline'"],
      imgSrc: ["'self'", 'data:', 'blob:'],
      fontSrc: ["'self'", 'data:'],
      connectSrc: ["'self'"],
      objectSrc: ["'none'"],
      baseUri: ["'none'"],
      formAction: ["'self'"],
      frameAncestors: ["'none'"],
    },
  },
  // Served over plain HTTP on loopback: there is nothing to upgrade to.
  strictTransportSecurity: false,
});
