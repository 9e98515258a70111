import { rmSync } from 'node:fs';
import path from 'node:path';
import { notFound } from '../problem';
import { asideFolder, bytesIn, momentIn, namesIn } from './places';

/** A database that was in the way of another, and was put aside as it was. */
export type Aside = { readonly name: string; readonly at: number; readonly bytes: number };

/** What was put aside, the last first. */
export const listAsides = (place: string): Aside[] =>
  namesIn(asideFolder(place))
    .map((name) => ({ name, at: momentIn(name), bytes: bytesIn(path.join(asideFolder(place), name)) }))
    .filter(({ at }) => !Number.isNaN(at))
    .sort((a, b) => b.at - a.at);

/** Deletes what was put aside, for good. @throws Problem 404 where there is nothing of that name */
export function deleteAside(place: string, name: string): void {
  if (!listAsides(place).some((a) => a.name === name)) throw notFound('folder');
  rmSync(path.join(asideFolder(place), name), { recursive: true });
}
