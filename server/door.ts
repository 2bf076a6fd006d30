import { isIPv6 } from 'node:net';
import type { Request, RequestHandler } from 'express';
import { OWN_HEADER } from '#contracts/rows/door';
import { Refusal } from './errors';

const LOOPBACK = new Set(['127.0.0.1', 'localhost', '[::1]']);

/** Whether an address is this machine's own, that nobody else can reach. */
export function isLoopback(host: string): boolean {
  return LOOPBACK.has(host) || host === '::1' || /^127\.\d+\.\d+\.\d+$/.test(host);
}

/**
 * Only requests to a host that is ours are answered, for reads too: a page elsewhere may let its own name point at this
 * machine, and would then read the yard as if it were its own. Ours are this machine's own names with the port, the
 * address that the connection really came to, and what is configured. [P: OWASP ASVS 4.0.3, 14.5; DNS rebinding]
 * @param hosts further names, each with a port, or without for any
 */
export function ownHosts(hosts: readonly string[]): RequestHandler {
  const wanted = new Set(hosts.map((h) => h.toLowerCase()));
  return (req, _res, next) => {
    const host = (req.headers.host ?? '').toLowerCase();
    const { name, port } = split(host);
    const here = port === String(req.socket.localPort) || (port === '' && req.socket.localPort === 80);
    const ours = (here && (LOOPBACK.has(name) || name === addressOf(req))) || wanted.has(host) || wanted.has(name);
    if (!ours)
      throw new Refusal(
        421,
        'not_our_host',
        `This server does not answer as "${host.slice(0, 80)}". Open it under the address it printed, or name this host in JACKPLANE_HOSTS.`,
      );
    next();
  };
}

function split(host: string): { name: string; port: string } {
  const found = /^(\[[^\]]*\]|[^:]*)(?::(\d+))?$/.exec(host);
  return { name: found?.[1] ?? '', port: found?.[2] ?? '' };
}

/** The address of this machine that the connection came to, as a host is written. */
function addressOf(req: Request): string {
  const address = (req.socket.localAddress ?? '').replace(/^::ffff:/, '').toLowerCase();
  return isIPv6(address) ? `[${address}]` : address;
}

const READS = new Set(['GET', 'HEAD', 'OPTIONS']);

/**
 * Whatever changes something must come from our own page: with a header that no form can set, and from our own origin
 * where the browser tells it. [P: OWASP ASVS 4.0.3, 4.2.2 and 13.2.3, cross-site request forgery]
 */
export const ownPageOnly: RequestHandler = (req, _res, next) => {
  if (READS.has(req.method)) return next();
  const { origin } = req.headers;
  const site = req.headers['sec-fetch-site'];
  const foreign =
    (origin !== undefined && hostOf(origin) !== (req.headers.host ?? '').toLowerCase()) ||
    (site !== undefined && site !== 'same-origin');
  if (foreign) throw new Refusal(403, 'foreign_page', 'Another page asked for this. Nothing was changed.');
  if (req.get(OWN_HEADER) !== '1')
    throw new Refusal(
      403,
      'no_own_header',
      `This changes something and must carry the header ${OWN_HEADER}: 1. Nothing was changed.`,
    );
  next();
};

/**
 * Nothing of the yard is told to a page from elsewhere, not even as a picture that it cannot look at: the asking alone
 * costs work. [P: W3C Fetch Metadata Request Headers]
 */
export const notForeign: RequestHandler = (req, _res, next) => {
  const site = req.headers['sec-fetch-site'];
  if (site === 'cross-site' || site === 'same-site')
    throw new Refusal(403, 'foreign_page', 'Another page asked for this. Nothing is told to it.');
  next();
};

function hostOf(origin: string): string {
  try {
    return new URL(origin).host;
  } catch {
    return '';
  }
}

/** Only JSON is read, and it says so. */
export const asJson: RequestHandler = (req, _res, next) => takes(req, /^application\/json(;|$)/, 'JSON', next);

/** Files come as bytes. */
export const asBytes: RequestHandler = (req, _res, next) =>
  takes(req, /^application\/(octet-stream|gzip|x-gzip)(;|$)/, 'a file (application/octet-stream)', next);

function takes(req: Request, types: RegExp, words: string, next: () => void): void {
  const bodyless =
    READS.has(req.method) ||
    (req.headers['content-length'] === undefined && req.headers['transfer-encoding'] === undefined) ||
    req.headers['content-length'] === '0';
  if (!bodyless && !types.test((req.headers['content-type'] ?? '').toLowerCase()))
    throw new Refusal(415, 'wrong_type', `This takes ${words} and nothing else.`);
  next();
}
