import { isAbsolute } from 'node:path';
import { folderStore } from './folderStore';

/** What is known of a file there: its bytes, and since when it is there, ms since 1970. */
export type Kept = { readonly bytes: number; readonly at: number };

/** Files that never change once they are there, by name: in a store beyond this machine, or on another disk. */
export interface ObjectStore {
  /** Where that is, as it is told to people; without secrets. */
  readonly where: string;
  /** Puts a file there, whole or not at all; `sha256` (hexadecimal) is of its bytes. On return it is kept. */
  put(name: string, file: string, sha256: string): Promise<void>;
  /** Brings one into `file`; false where there is none of that name. */
  get(name: string, file: string): Promise<boolean>;
  /** What is there under a prefix, by name. */
  list(prefix: string): Promise<Map<string, Kept>>;
  remove(names: readonly string[]): Promise<void>;
}

const kept = globalThis as typeof globalThis & {
  yellowQuillElsewhere?: { named: string; store: Promise<ObjectStore> };
};

/**
 * The store that `YELLOW_QUILL_STORE` names: `https://host/bucket/prefix` for one that speaks S3 (its key and secret are
 * `YELLOW_QUILL_STORE_KEY` and `YELLOW_QUILL_STORE_SECRET`, its region `YELLOW_QUILL_STORE_REGION`), or the absolute path of a
 * folder on another disk. Null where none is named. @throws Error for a name that is neither.
 */
export async function configuredStore(): Promise<ObjectStore | null> {
  const named = process.env.YELLOW_QUILL_STORE;
  if (!named) return null;
  if (kept.yellowQuillElsewhere?.named !== named) kept.yellowQuillElsewhere = { named, store: opened(named) };
  return kept.yellowQuillElsewhere.store;
}

async function opened(named: string): Promise<ObjectStore> {
  if (isAbsolute(named)) return folderStore(named);
  if (!isAddress(named))
    throw new Error(
      'YELLOW_QUILL_STORE is neither an address (https://host/bucket) nor the absolute path of a folder.',
    );
  return (await import('./s3Store')).s3Store(new URL(named));
}

const isAddress = (named: string): boolean => /^https?:\/\//.test(named) && URL.canParse(named);

/** Where a name leads, as it is told to people: whatever key or secret stands in it is left out. */
export function whereOf(named: string): string {
  if (!isAddress(named)) return isAbsolute(named) ? named : 'nowhere that is understood';
  const { host, pathname } = new URL(named);
  return host + pathname.replace(/\/+$/, '');
}

/** Whether a store is named. */
export const isElsewhere = (): boolean => Boolean(process.env.YELLOW_QUILL_STORE);
