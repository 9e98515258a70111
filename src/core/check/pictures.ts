import type { Reference } from '../drawing/schema';
import type { Picture } from '../colour/picture';

/** The corrected pictures of a drawing's references by these' ids: in colour where edges are looked for. */
export type Pictures = ReadonlyMap<string, Picture>;

const placements = new WeakMap<Reference, string>();

/** All of a reference that decides how lines lie to its picture, and what is looked for in it. */
export function placementKey(r: Reference): string {
  let key = placements.get(r);
  if (key === undefined) {
    key = JSON.stringify([r.at, r.width, r.height, r.turn, r.flipX, r.flipY, r.target, r.corrections]);
    placements.set(r, key);
  }
  return key;
}
