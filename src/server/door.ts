import { createHash, timingSafeEqual } from 'node:crypto';

/** What every request passes and every answer bears, pages and data alike. */

const LOOPBACK = new Set(['localhost', '127.0.0.1', '[::1]']);

/**
 * Whether a request names this server: a loopback name, or one of `YELLOW_QUILL_HOSTS` (separated by commas). A page
 * elsewhere can have its own name lead to this machine (DNS rebinding), but it cannot have the browser name another.
 */
export function isOurHost(headers: Headers): boolean {
  const name = (headers.get('host') ?? '').replace(/:\d+$/, '').toLowerCase();
  const known = (process.env.YELLOW_QUILL_HOSTS ?? '').toLowerCase().split(',');
  return LOOPBACK.has(name) || known.some((k) => k.trim() !== '' && k.trim() === name);
}

/** Whether a request that changes something comes from a page of this very server, or from no page at all. */
export function isOurOrigin(headers: Headers): boolean {
  const origin = headers.get('origin');
  const isSame = origin === null || (URL.canParse(origin) && new URL(origin).host === headers.get('host'));
  return isSame && headers.get('sec-fetch-site') !== 'cross-site';
}

const COOKIE = 'yellow-quill-token';

/**
 * Whether a request bears the token, where the server wants one (`YELLOW_QUILL_TOKEN`), as it should when it listens beyond this
 * machine: as `Authorization: Bearer`, or as the cookie that a page opened with `?token=` leaves.
 */
export function isTrusted(headers: Headers): boolean {
  const token = process.env.YELLOW_QUILL_TOKEN;
  if (!token) return true;
  const bearer = /^Bearer (.+)$/.exec(headers.get('authorization') ?? '')?.[1];
  const cookie = new RegExp(`(?:^|; )${COOKIE}=([^;]+)`).exec(headers.get('cookie') ?? '')?.[1];
  return [bearer, cookie && decodeURIComponent(cookie)].some((given) => !!given && isSameText(given, token));
}

/** Compares in a time that does not tell how much is the same. */
const isSameText = (a: string, b: string): boolean => {
  const [x, y] = [a, b].map((text) => createHash('sha256').update(text).digest());
  return timingSafeEqual(x, y);
};

/** The cookie for a page that was opened with the right token; null otherwise. */
export function cookieFor(given: string | null, isSecure: boolean): string | null {
  const token = process.env.YELLOW_QUILL_TOKEN;
  if (!token || !given || !isSameText(given, token)) return null;
  return `${COOKIE}=${encodeURIComponent(token)}; Path=/; HttpOnly; SameSite=Strict; Max-Age=31536000${isSecure ? '; Secure' : ''}`;
}

const kept = {
  'x-content-type-options': 'nosniff',
  'x-frame-options': 'DENY',
  'referrer-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
  'cross-origin-opener-policy': 'same-origin',
};

/** For data: nothing in it is ever run, shown in a frame, or read by another site. */
export const dataHeaders: Readonly<Record<string, string>> = {
  ...kept,
  'content-security-policy': "default-src 'none'; frame-ancestors 'none'; sandbox",
};

/**
 * For pages: only this server's own scripts run, named by a nonce; nothing is taken from anywhere else. Styles may stand in
 * the page, for the components write theirs there. While the program is being changed its own tools may evaluate text.
 */
export function pageHeaders(nonce: string, isDevelopment: boolean): Record<string, string> {
  const policy = [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}'${isDevelopment ? " 'unsafe-eval'" : ''}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self' data:",
    `connect-src 'self' blob: data:${isDevelopment ? ' ws:' : ''}`,
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ];
  return { ...kept, 'content-security-policy': policy.join('; ') };
}
