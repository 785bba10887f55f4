import type { Request, RequestHandler, Response } from 'express';
import { createHash, randomBytes, timingSafeEqual } from 'node:crypto';
import { sendProblem } from './problems.js';

const NO_ACCESS =
  'This browser has no access to Verdict yet. Open the address printed by npm start; to get a new one, run npm start again.';

const digest = (text: string) => createHash('sha256').update(text).digest();
const isSame = (a: string, b: string) => timingSafeEqual(digest(a), digest(b));

/** A year: the cookie is as lasting as the secret it is made from. */
const COOKIE_SECONDS = 31_536_000;
/** Addresses that were printed and not opened yet; the oldest are forgotten. */
const MOST_KEYS = 20;

/**
 * Gives access to the browser that first opens a printed address, from then on by a cookie, and to programs that know the secret. Other users of the machine
 * reach the same port, and have neither.
 */
export class Access {
  readonly #keys = new Set<string>();

  /** @param secret from a file that only its owner reads; null gives access to everybody */
  constructor(private readonly secret: string | null) {}

  /** A key for one address. '' where none is needed. */
  newKey(): string {
    if (this.secret === null) return '';
    const key = randomBytes(16).toString('hex');
    this.#keys.add(key);
    const [oldest] = this.#keys;
    if (this.#keys.size > MOST_KEYS) this.#keys.delete(oldest!);
    return `?key=${key}`;
  }

  /** Of its own on every port: a browser sends the cookies of a host to all of them. */
  #cookieName = (req: Request) => `verdict-${req.socket.localPort}`;
  #cookie = () => createHash('sha256').update(`cookie ${this.secret}`).digest('hex');

  #hasAccess(req: Request): boolean {
    if (this.secret === null) return true;
    const { authorization = '', cookie = '' } = req.headers;
    if (isSame(authorization, `Bearer ${this.secret}`)) return true;
    const name = this.#cookieName(req);
    return cookie.split(/;\s*/).some((pair) => isSame(pair, `${name}=${this.#cookie()}`));
  }

  /** Answers 401 to requests of anybody else. */
  readonly required: RequestHandler = (req, res, next) => {
    if (this.#hasAccess(req)) next();
    else sendProblem(res, { status: 401, title: 'No access', detail: NO_ACCESS, code: 'no-access' });
  };

  /** Takes the key of an address, sets the cookie, and goes on to the address without the key. */
  readonly byKey: RequestHandler = (req, res, next) => {
    const { key } = req.query;
    if (typeof key !== 'string' || this.secret === null) return next();
    if (this.#keys.delete(key)) this.#setCookie(req, res);
    // Two slashes at the beginning would lead to another host.
    res.redirect(303, req.path.replace(/^[/\\]+/, '/'));
  };

  #setCookie(req: Request, res: Response): void {
    const rules = `Path=/; Max-Age=${COOKIE_SECONDS}; HttpOnly; SameSite=Strict`;
    res.setHeader('Set-Cookie', `${this.#cookieName(req)}=${this.#cookie()}; ${rules}`);
  }
}
