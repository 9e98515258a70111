import type { Change, Drawing, Reference } from '@/core';
import { ABOUT_DRAWING } from '@/core/formats/aboutDrawing';

/** An answer with an error in it. `status` 0 means there was no answer. */
export class ApiError extends Error {
  override name = 'ApiError';
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    /** The drawing's revision, where the answer names it. */
    readonly revision?: number,
  ) {
    super(message);
  }
}

export type Opened = {
  id: string;
  title: string;
  stage: string;
  revision: number;
  /** The id of the change that made that revision; none where nothing was changed yet. */
  last?: string;
  drawing: Drawing;
  /** What of it cannot be read: from one revision to another, and why. */
  damaged?: { from: number; to: number; why: string };
};

/** Asks the server for JSON. @throws ApiError with words for a person. */
export async function ask<T>(path: string, init?: RequestInit): Promise<T> {
  const response = await reach(path, init);
  if (!response.ok) throw await refusalIn(response);
  return (await response.json().catch(() => null)) as T;
}

const reach = (path: string, init?: RequestInit): Promise<Response> =>
  fetch(path, init).catch(() => {
    throw new ApiError(0, 'unreachable', 'The server cannot be reached.');
  });

/** What an answer with an error in it says. */
export async function refusalIn(response: Response): Promise<ApiError> {
  const body = (await response.json().catch(() => null)) as {
    error?: { code: string; message: string; revision?: number };
  } | null;
  const { code, message, revision } = body?.error ?? {
    code: 'failed',
    message: `The server answered with ${response.status}.`,
    revision: undefined,
  };
  return new ApiError(response.status, code, message, revision);
}

export const askJson = <T>(path: string, method: string, body: unknown): Promise<T> =>
  ask<T>(path, { method, headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) });

/** A drawing as the server packs it (`core/formats/packed`), not yet unpacked. */
export type PackedDrawing = { about: Omit<Opened, 'drawing'>; bytes: ArrayBuffer };

export const packedUrl = (id: string): string => `/api/drawings/${encodeURIComponent(id)}/packed`;

/**
 * Asks for a drawing as it is by now; `mayBeAhead`: or as it was when the page was asked for.
 * @throws ApiError; TypeError when what comes cannot be read.
 */
export async function askPacked(id: string, mayBeAhead = false): Promise<PackedDrawing> {
  const response = await reach(packedUrl(id), mayBeAhead ? undefined : { cache: 'reload' });
  if (!response.ok) throw await refusalIn(response);
  return { about: aboutDrawing(response.headers.get(ABOUT_DRAWING)!), bytes: await response.arrayBuffer() };
}

/** What the header says of it. @throws SyntaxError, URIError */
export const aboutDrawing = (header: string): PackedDrawing['about'] =>
  JSON.parse(decodeURIComponent(header)) as PackedDrawing['about'];

/** So long an answer to changes is waited for, ms, and as much longer as they may be on their way over a slow line, characters a ms. */
const PATIENCE = 40_000;
const SLOW_LINE = 30;

/**
 * Changes, as JSON, after the revision that they were made on. A server that does not answer (a line can be cut without a word)
 * counts as one that cannot be reached.
 */
function postChanges<T>(path: string, base: number, changes: readonly string[], after?: string): Promise<T> {
  const body = `{"base":${base},${after === undefined ? '' : `"after":${JSON.stringify(after)},`}"changes":[${changes.join(',')}]}`;
  const given = new AbortController();
  const timer = setTimeout(() => given.abort(), PATIENCE + body.length / SLOW_LINE);
  const headers = { 'content-type': 'application/json' };
  return ask<T>(path, { method: 'POST', headers, body, signal: given.signal }).finally(() => clearTimeout(timer));
}

/** `after` is the change that made `base`, where that is known. The same changes can be sent again: they are made once. */
export const sendChanges = (
  id: string,
  base: number,
  changes: readonly string[],
  after?: string,
): Promise<{ revision?: number }> => postChanges(`/api/drawings/${id}/changes`, base, changes, after);

/** The changes before a revision, as many as are read at once, or at most so many. */
export const changesBefore = (
  id: string,
  before: number,
  most?: number,
): Promise<{ from: number; changes: readonly Change[] }> =>
  ask(`/api/drawings/${id}/changes?before=${before}${most ? `&most=${most}` : ''}`);

/** A new drawing, as another was at a revision. */
export const copyAt = (id: string, revision: number): Promise<{ id: string }> =>
  ask(`/api/drawings/${id}/duplicate?revision=${revision}`, { method: 'POST' });

/** The same, as it was at a moment, ms since 1970. */
export const copyAsOf = (id: string, at: number): Promise<{ id: string; revision: number }> =>
  ask(`/api/drawings/${id}/duplicate?at=${at}`, { method: 'POST' });

export const journalUrl = (id: string, from: number): string => `/api/drawings/${id}/journal?from=${from}`;

export const keepAside = (
  id: string,
  base: number,
  changes: readonly string[],
): Promise<{ id: string; revision: number; title: string }> => postChanges(`/api/drawings/${id}/aside`, base, changes);

/** Keeps a whole drawing, packed, as one of its own beside the one that it was. */
export const keepWholeAside = (id: string, bytes: Uint8Array): Promise<{ id: string; title: string }> =>
  ask(`/api/drawings/${id}/aside`, {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream' },
    body: bytes as Uint8Array<ArrayBuffer>,
  });

/** As many bytes as the server takes; asked beforehand, since a refusal in the middle of sending looks like a lost line. */
const MOST_BYTES = 60 * 1024 * 1024;

/** Sends a picture's bytes to be taken in; laying it on the page is a change that the caller makes. */
export async function sendPicture(id: string, file: Blob, name: string): Promise<Reference> {
  if (file.size > MOST_BYTES) {
    throw new ApiError(
      413,
      'too-large',
      'The file is larger than 60 MB. Nothing was brought in; save it smaller and try again.',
    );
  }
  const query = new URLSearchParams({ name, place: '0' });
  const { reference } = await ask<{ reference: Reference }>(`/api/drawings/${id}/references?${query}`, {
    method: 'POST',
    body: file,
  });
  return reference;
}

/** Sends an SVG to become a drawing of its own. */
export function sendSvg(title: string, file: Blob): Promise<{ id: string; dropped: { what: string; why: string }[] }> {
  if (file.size > MOST_BYTES)
    throw new ApiError(413, 'too-large', 'The file is larger than 60 MB. Nothing was brought in; save it smaller.');
  return ask(`/api/drawings/import?${new URLSearchParams({ title })}`, { method: 'POST', body: file });
}

/** Where drawings are had as one package. */
export const packageHref = (ids: readonly string[]): string => `/api/drawings/package?ids=${ids.join(',')}`;

/** Sends a package: what drawings came of it, and in words what was damaged. */
export const sendPackage = (file: Blob): Promise<{ drawings: { id: string; title: string }[]; lost: string[] }> =>
  ask('/api/drawings/package', { method: 'POST', body: file });

/** A state kept by name. */
export type Version = {
  readonly id: string;
  readonly name: string;
  readonly note: string;
  readonly revision: number;
  readonly at: number;
};

const versionsPath = (id: string): string => `/api/drawings/${id}/versions`;

export const listVersions = (id: string): Promise<{ versions: Version[] }> => ask(versionsPath(id));
export const postVersion = (id: string, name: string, revision: number, note: string): Promise<Version> =>
  askJson(versionsPath(id), 'POST', { name, revision, note });
export const openVersion = (id: string, version: string): Promise<Version & { drawing: Drawing }> =>
  ask(`${versionsPath(id)}/${version}`);
export const deleteVersion = (id: string, version: string): Promise<unknown> =>
  ask(`${versionsPath(id)}/${version}`, { method: 'DELETE' });
export const versionPicture = (id: string, version: string): string => `${versionsPath(id)}/${version}/thumbnail`;
