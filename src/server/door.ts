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
