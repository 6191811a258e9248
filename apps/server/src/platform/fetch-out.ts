import { lookup as lookUp } from 'node:dns';
import { request as overHttp, type IncomingMessage } from 'node:http';
import { request as overHttps } from 'node:https';
import type { LookupFunction } from 'node:net';
import { Inject, Injectable } from '@nestjs/common';
import ipaddr from 'ipaddr.js';
import { CONFIG, type Config } from './config';
import { sentence } from './words';

/** What is asked of an address out there. */
export interface Asked {
  url: string;
  method?: 'GET' | 'POST' | 'PATCH' | 'DELETE';
  headers?: Record<string, string>;
  body?: string;
  /** How often it may send us on. */
  redirects?: number;
}

/** Why something out there could not be had: a sentence for whoever looks after it. */
export class FetchFault extends Error {
  constructor(code: Parameters<typeof sentence>[0], values: Record<string, string | number> = {}) {
    super(sentence(code, values));
  }
}

const SECONDS = 30;
const CERTIFICATES = /^(?:CERT_|ERR_TLS_|UNABLE_TO_|SELF_SIGNED_|DEPTH_ZERO_)/;

/**
 * Asks addresses that somebody typed in. None of them may be one of this network's own, neither at first nor
 * where a name turns out to be one or an answer sends us on to one: a page of the program could otherwise be
 * made to read what only this machine may. What the house's own machines are is said by the environment.
 */
@Injectable()
export class FetchOut {
  private readonly allowed: ReadonlySet<string>;

  constructor(@Inject(CONFIG) config: Pick<Config, 'FEED_PRIVATE'>) {
    this.allowed = new Set(config.FEED_PRIVATE.split(',').filter((one) => one !== ''));
  }

  /**
   * The answer, its body still to be read.
   * @throws FetchFault where there is none
   */
  async ask(asked: Asked): Promise<IncomingMessage> {
    const url = new URL(asked.url);
    if (url.username !== '' || url.password !== '') throw new FetchFault('fetch.password');
    const answer = await this.once(url, asked);
    const status = answer.statusCode ?? 0;
    if (status < 300 || status > 399 || status === 304) return answer;
    answer.resume();
    const to = answer.headers.location;
    if (!to || (asked.redirects ?? 0) < 1) throw new FetchFault('fetch.redirect', { host: url.host });
    const next = new URL(to, url);
    if (!/^https?:$/.test(next.protocol)) throw new FetchFault('fetch.redirect', { host: url.host });
    const headers = { ...asked.headers };
    // A token is for whom it was given to.
    if (next.origin !== url.origin) delete headers.authorization;
    return this.ask({ ...asked, url: next.href, headers, redirects: (asked.redirects ?? 0) - 1 });
  }

  private once(url: URL, { method = 'GET', headers = {}, body }: Asked): Promise<IncomingMessage> {
    const host = url.hostname.replace(/^\[|\]$/g, '');
    const port = url.port || (url.protocol === 'https:' ? '443' : '80');
    const isAllowed = this.allowed.has(`${host}:${port}`);
    if (!isAllowed && ipaddr.isValid(host) && !isOutside(host))
      throw new FetchFault('fetch.private', { host: url.host });
    return new Promise((done, fail) => {
      const request = (url.protocol === 'https:' ? overHttps : overHttp)(
        url,
        {
          ...{ method, headers, lookup: isAllowed ? undefined : outsideOnly },
          ...{ signal: AbortSignal.timeout(SECONDS * 1000), agent: false },
        },
        done,
      );
      request.on('error', (error) => fail(faultOf(error, url.host)));
      request.end(body);
    });
  }
}

const isOutside = (address: string): boolean => ipaddr.process(address).range() === 'unicast';

class PrivateAddress extends Error {}

/** Looks a name up, and refuses one of whose addresses any is of a network of our own. */
const outsideOnly: LookupFunction = (name, options, done) =>
  lookUp(name, { ...options, all: true }, (error, addresses) => {
    if (error) return done(error, '', 0);
    if (addresses.some(({ address }) => !isOutside(address))) return done(new PrivateAddress(name), '', 0);
    if (options.all) return done(null, addresses);
    done(null, addresses[0]!.address, addresses[0]!.family);
  });

function faultOf(error: Error & { code?: string }, host: string): FetchFault {
  if (error instanceof FetchFault) return error;
  if (error instanceof PrivateAddress) return new FetchFault('fetch.private', { host });
  if (error.name === 'AbortError' || error.name === 'TimeoutError')
    return new FetchFault('fetch.slow', { host, seconds: SECONDS });
  if (CERTIFICATES.test(error.code ?? ''))
    return new FetchFault('fetch.certificate', { host, why: error.message });
  return new FetchFault('fetch.away', { host, why: error.code ?? error.message });
}

/**
 * The whole body, up to so many bytes.
 * @throws FetchFault where it is longer, or ends before its end
 */
export async function bodyOf(answer: IncomingMessage, most: number, host: string): Promise<Buffer> {
  const pieces: Buffer[] = [];
  let length = 0;
  try {
    for await (const piece of answer as AsyncIterable<Buffer>) {
      length += piece.length;
      if (length > most) {
        answer.destroy();
        throw new FetchFault('fetch.large', { host, megabytes: Math.floor(most / 1_048_576) });
      }
      pieces.push(piece);
    }
  } catch (error) {
    throw faultOf(error as Error, host);
  }
  return Buffer.concat(pieces);
}
