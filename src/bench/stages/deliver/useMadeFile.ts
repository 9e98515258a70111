import { useEffect, useState } from 'react';

/** A file as the server made it: what is told of it is told of the very file that is saved. */
export type MadeFile = { readonly url: string; readonly bytes: number; readonly type: string };

/** How long the choices rest before a file is made, ms. */
const REST = 400;

/**
 * The file at an address, made when the choices have rested; made anew where the address or `of` changes. Null while it is
 * being made; `trouble` says why it could not be.
 */
export function useMadeFile(href: string | null, of: unknown): { file: MadeFile | null; trouble: string | null } {
  const [known, setKnown] = useState<{ href: string; of: unknown; file: MadeFile | null; trouble: string | null }>();
  useEffect(() => {
    if (!href) return;
    const stop = new AbortController();
    let url: string | null = null;
    const timer = setTimeout(async () => {
      try {
        const response = await fetch(href, { signal: stop.signal });
        if (!response.ok) throw new Error(await reasonOf(response));
        const blob = await response.blob();
        if (stop.signal.aborted) return;
        url = URL.createObjectURL(blob);
        setKnown({ href, of, file: { url, bytes: blob.size, type: blob.type }, trouble: null });
      } catch (error) {
        if (!stop.signal.aborted) setKnown({ href, of, file: null, trouble: (error as Error).message });
      }
    }, REST);
    return () => {
      clearTimeout(timer);
      stop.abort();
      if (url) URL.revokeObjectURL(url);
    };
  }, [href, of]);
  const isOfNow = known !== undefined && known.href === href && known.of === of;
  return isOfNow ? known : { file: null, trouble: null };
}

async function reasonOf(response: Response): Promise<string> {
  const body = (await response.json().catch(() => null)) as { error?: { message?: string } } | null;
  return body?.error?.message ?? 'The file could not be made.';
}
