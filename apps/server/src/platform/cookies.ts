import type { CookieOptions, Request, Response } from 'express';
import { isHttps, type Config } from './config';

/**
 * Cookies of teammates' browsers. Behind https they carry the prefix that makes a browser refuse them from
 * anywhere but this host, over https, for all of it (RFC 6265bis §4.1.3.2).
 */
export type CookieName = 'session' | 'known';

const DAY_MS = 86_400_000;
const AGE: Record<CookieName, number> = { session: 14 * DAY_MS, known: 180 * DAY_MS };

const nameOf = (config: Pick<Config, 'PUBLIC_URL'>, name: CookieName) =>
  `${isHttps(config) ? '__Host-' : ''}gw_${name}`;

const optionsOf = (config: Pick<Config, 'PUBLIC_URL'>): CookieOptions => ({
  httpOnly: true,
  sameSite: 'lax',
  secure: isHttps(config),
  path: '/',
});

/** The cookie's text; undefined where there is none, or one that is no text. */
export function readCookie(config: Config, request: Request, name: CookieName): string | undefined {
  const cookie = (request.cookies as Record<string, unknown>)[nameOf(config, name)];
  return typeof cookie === 'string' ? cookie : undefined;
}

export function setCookie(config: Config, response: Response, name: CookieName, value: string): void {
  response.cookie(nameOf(config, name), value, { ...optionsOf(config), maxAge: AGE[name] });
}

export function dropCookie(config: Config, response: Response, name: CookieName): void {
  response.clearCookie(nameOf(config, name), optionsOf(config));
}
