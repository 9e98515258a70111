import { applyChange, touchedItems } from '../change/apply';
import type { Step } from '../change/change';
import { edit, sidesOf, type Edit } from '../change/edit';
import { findLine, placeOf } from '../drawing/find';
import type { Drawing } from '../drawing/schema';
import { identity, inverseOf, times, type Matrix } from '../geometry/matrix';
import type { Point } from '../geometry/point';
import { mirrorAt, turnsAbout } from './copies';
import { joinEnds } from './join';
import { removeLines } from './lines';
import { mappedLine } from './transform';

/** How lines are drawn several times at once: in a mirror through a place, or turned about it, `count` of them in all. */
export type Mirror =
  | { readonly kind: 'across'; readonly at: Point }
  | { readonly kind: 'down'; readonly at: Point }
  | { readonly kind: 'round'; readonly at: Point; readonly count: number };

/** The coordinate that is the same all along a mirror's axis; none where things are turned. */
export const axisOf = ({ kind }: Mirror): 'x' | 'y' | null => (kind === 'round' ? null : kind === 'across' ? 'x' : 'y');

/** A mirror whose axis goes through a place, or whose point is there. */
export function mirrorThrough(m: Mirror, p: Point): Mirror {
  const axis = axisOf(m);
  return { ...m, at: axis ? { ...m.at, [axis]: p[axis] } : p };
}

/** The maps from what the hand draws to each of its places, its own first. */
export const mirrorMaps = (m: Mirror): Matrix[] => [
  identity,
  ...(m.kind === 'round' ? turnsAbout(m.at, m.count) : [mirrorAt(m.at, m.kind)]),
];

/** Lines that are each other's images, in the order of the maps. */
export type Images = readonly string[];

/**
 * An edit with what it does to a line done to its images as well: a line that is new gets them, with ids from `idsFor`;
 * one that is reshaped takes those along that `imagesOf` knows, and one that goes takes them with it. Where several of one
 * set are touched by the edit itself, they are left as it has them.
 */
export function mirroredEdit(
  d: Drawing,
  asked: Edit,
  maps: readonly Matrix[],
  imagesOf: (line: string) => Images | undefined,
  idsFor: (line: string) => Images,
): Edit {
  let now = applyChange(d, { id: 'asked', ...asked });
  const steps: Step[] = [];
  const also = (more: readonly Step[]): void => {
    now = applyChange(now, { id: 'also', label: asked.label, steps: [...more] });
    steps.push(...more);
  };
  const touched = touchedItems(asked);
  for (const id of touched) {
    const [was, is] = [findLine(d, id), findLine(now, id)];
    if (!was && is) {
      const images = idsFor(id).slice(1);
      const at = placeOf(is);
      also(
        images.map((image, k): Step => {
          const item = { ...mappedLine(is.line, maps[k + 1], false), id: image };
          return { step: 'insertItem', at: { ...at, index: at.index + 1 + k }, item };
        }),
      );
      continue;
    }
    const images = imagesOf(id);
    if (!was || !images || images.some((other) => other !== id && touched.has(other))) continue;
    const others = images.filter((other) => other !== id && findLine(now, other));
    if (!is) also(removeLines(now, others).steps);
    else if (is.line !== was.line) {
      const back = inverseOf(maps[images.indexOf(id)]);
      also(others.flatMap((other) => likeStep(now, other, id, times(maps[images.indexOf(other)], back))));
    }
  }
  return steps.length > 0 ? edit(asked.label, asked.steps, steps) : asked;
}

/** A line made the image of another under a map; its id and its sheet stay its own. */
function likeStep(d: Drawing, image: string, of: string, m: Matrix): Step[] {
  const [found, line] = [findLine(d, image)!, findLine(d, of)!.line];
  const { runs, style, marks } = mappedLine(line, m, false);
  const sides = sidesOf<{ runs: unknown; style: unknown; marks?: unknown }>(found.line, { runs, style, marks });
  return sides ? [{ step: 'setLine', sheet: found.sheet.id, id: image, ...sides } as Step] : [];
}

/** Places this near to the axis lie on it, page units. */
const ON_AXIS = 1e-3;

/** Two halves made one line where their ends meet on the axis; closed where both do. Nothing where none does. */
export function joinHalves(d: Drawing, mirror: Mirror, images: Images): Edit {
  const label = 'Join the halves';
  const [one, two] = images;
  const run = findLine(d, one)?.line.runs[0];
  const axis = axisOf(mirror);
  if (!axis || !run || run.closed || run.nodes.length < 2 || !findLine(d, two)) return edit(label);
  const isOn = (p: Point): boolean => Math.abs(p[axis] - mirror.at[axis]) < ON_AXIS;
  const [atStart, atEnd] = [isOn(run.nodes[0].point), isOn(run.nodes.at(-1)!.point)];
  if (!atStart && !atEnd) return edit(label);
  const end = (line: string, start: boolean) => ({ line, run: 0, atStart: start });
  const first = joinEnds(d, end(one, !atEnd), end(two, !atEnd), undefined, label);
  if (!(atStart && atEnd)) return first;
  const joined = applyChange(d, { id: 'joined', ...first });
  return edit(label, first.steps, joinEnds(joined, end(one, true), end(one, false), undefined, label).steps);
}
