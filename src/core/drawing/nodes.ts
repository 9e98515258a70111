import { z } from 'zod';
import { MOST_PLACE, offsetSchema, quickly } from './values';

export const nodeKinds = ['corner', 'smooth', 'even', 'flowing'] as const;
const MOST_RADIUS = 100_000;

/**
 * A place a line runs through. Handles are offsets from the point; null means there is none. A corner without handles
 * can be rounded off by an arc of `radius` page units: the node stays, the line is drawn round it.
 */
export const nodeSchema = z.strictObject({
  point: offsetSchema,
  in: offsetSchema.nullable(),
  out: offsetSchema.nullable(),
  kind: z.enum(nodeKinds),
  radius: z.number().min(0).max(MOST_RADIUS).optional(),
});

/** Nodes, as many as are allowed. */
export const nodesSchema = (least: number, most: number) =>
  quickly((value) => areNodes(value, least, most), z.array(nodeSchema).min(least).max(most));

export const areNodes = (value: unknown, least: number, most: number): boolean =>
  Array.isArray(value) && value.length >= least && value.length <= most && value.every(isNode);

const sides = new Set(['point', 'in', 'out', 'kind', 'radius']);

function isNode(value: unknown): boolean {
  if (typeof value !== 'object' || value === null) return false;
  for (const side in value) if (!sides.has(side)) return false;
  const { point, in: into, out, kind, radius } = value as Record<string, unknown>;
  return (
    isOffset(point) &&
    (into === null || isOffset(into)) &&
    (out === null || isOffset(out)) &&
    nodeKinds.includes(kind as never) &&
    (radius === undefined || isRadius(radius))
  );
}

function isOffset(value: unknown): boolean {
  if (typeof value !== 'object' || value === null) return false;
  for (const side in value) if (side !== 'x' && side !== 'y') return false;
  const { x, y } = value as Record<string, unknown>;
  return isPlace(x) && isPlace(y);
}

export const isRadius = (v: unknown): boolean => typeof v === 'number' && v >= 0 && v <= MOST_RADIUS;
export const isPlace = (v: unknown): boolean => typeof v === 'number' && v >= -MOST_PLACE && v <= MOST_PLACE;
