import { headers } from 'next/headers';
import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';

/** Written by `scripts/early.mjs`; while the program is being changed there is none of it, and the program does all by itself. */
const built = (name: string): string | null => {
  const file = path.join(/*turbopackIgnore: true*/ process.cwd(), '.next', 'early', `${name}.js`);
  return process.env.NODE_ENV === 'production' && existsSync(file) ? readFileSync(file, 'utf8') : null;
};
const scripts = { begin: built('begin'), show: built('show') };

/** A script of `bench/early`, in the page itself. */
export async function EarlyScript({ name }: { name: keyof typeof scripts }) {
  const nonce = /'nonce-([\w-]+)'/.exec((await headers()).get('content-security-policy') ?? '')?.[1];
  const text = scripts[name];
  return text && <script nonce={nonce} dangerouslySetInnerHTML={{ __html: text }} suppressHydrationWarning />;
}
