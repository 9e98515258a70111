import { useEffect, useState } from 'react';
import type { Delivery } from '@/core/deliver/delivery';
import { fetchFile } from '../../state/files';

/** A file as the server made it: what is told of it is told of the very file that is saved. */
export type MadeFile = { readonly url: string; readonly bytes: number; readonly type: string };

/** How long the choices rest before a file is made, ms. */
const REST = 400;

/**
 * The file that is wanted of a drawing, made when the choices have rested; made anew where they or `of` change. Null while it is
 * being made; `trouble` says why it could not be.
 */
export function useMadeFile(
  id: string,
  wanted: Delivery | null,
  of: unknown,
): { file: MadeFile | null; trouble: string | null } {
  const [known, setKnown] = useState<{ key: string; of: unknown; file: MadeFile | null; trouble: string | null }>();
  const key = wanted && JSON.stringify([id, wanted]);
  useEffect(() => {
    if (!key) return;
    const stop = new AbortController();
    let url: string | null = null;
    const timer = setTimeout(async () => {
      try {
        const [drawing, asked] = JSON.parse(key) as [string, Delivery];
        const blob = await fetchFile(drawing, asked, stop.signal);
        if (stop.signal.aborted) return;
        url = URL.createObjectURL(blob);
        setKnown({ key, of, file: { url, bytes: blob.size, type: blob.type }, trouble: null });
      } catch (error) {
        if (!stop.signal.aborted) setKnown({ key, of, file: null, trouble: (error as Error).message });
      }
    }, REST);
    return () => {
      clearTimeout(timer);
      stop.abort();
      if (url) URL.revokeObjectURL(url);
    };
  }, [key, of]);
  const isOfNow = known !== undefined && known.key === key && known.of === of;
  return isOfNow ? known : { file: null, trouble: null };
}
