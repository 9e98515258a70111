import type { Cubic } from '../geometry/cubic';
import { isWithin } from '../geometry/polygon';
import { signedArea } from './contours';

/** Outlines put together: each outer one with the holes within it. */
export function nestedOutlines<R extends { readonly cubics: readonly Cubic[] }>(outlines: readonly R[]): R[][] {
  const all = outlines.map((run) => {
    const points = run.cubics.map((c) => c[0]).flatMap((p, i) => [p, run.cubics[i][1], run.cubics[i][2]]);
    return { run, points, area: signedArea(points) };
  });
  const outwards = Math.sign(all[0]?.area ?? 1);
  const outer = all.filter((o) => Math.sign(o.area) === outwards).sort((a, b) => Math.abs(a.area) - Math.abs(b.area));
  const result = new Map(outer.map((o) => [o, [o.run]]));
  for (const hole of all.filter((o) => Math.sign(o.area) !== outwards)) {
    const around = outer.find((o) => Math.abs(o.area) > Math.abs(hole.area) && isWithin(hole.points[0], o.points));
    if (around) result.get(around)!.push(hole.run);
  }
  return [...result.values()];
}
