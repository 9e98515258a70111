import type { Point } from '../geometry/point';
import type { GrayImage } from './grayImage';

/**
 * The closed outlines of what is darker than `level`, between the middles of pixels and placed by their values
 * (marching squares: Lorensen and Cline 1987 in the plane). The dark lies to the left of the direction of travel when y
 * points down, so that outer outlines and holes run opposite ways. Beyond the edge there is paper (255).
 */
export function contours(
  { width, height, data }: Pick<GrayImage, 'width' | 'height'> & { data: ArrayLike<number> },
  level: number,
): Point[][] {
  const at = (x: number, y: number): number =>
    x < 0 || y < 0 || x >= width || y >= height ? 255 : data[y * width + x];
  /** Where the level is crossed between two neighbouring pixels. */
  const share = (a: number, b: number): number => Math.min(1, Math.max(0, (level - a) / (b - a)));
  const starts = new Map<string, { to: string; point: Point }>();
  const name = (x: number, y: number, upright: boolean): string => `${x},${y}${upright ? 'v' : 'h'}`;
  const place = (key: string): Point => {
    const upright = key.endsWith('v');
    const [x, y] = key.slice(0, -1).split(',').map(Number);
    return upright
      ? { x: x + 0.5, y: y + 0.5 + share(at(x, y), at(x, y + 1)) }
      : { x: x + 0.5 + share(at(x, y), at(x + 1, y)), y: y + 0.5 };
  };
  const link = (from: string, to: string): void => void starts.set(from, { to, point: place(from) });
  for (let y = -1; y < height; y++) {
    for (let x = -1; x < width; x++) {
      const [a, b, c, d] = [at(x, y), at(x + 1, y), at(x + 1, y + 1), at(x, y + 1)];
      const kind = (a < level ? 8 : 0) + (b < level ? 4 : 0) + (c < level ? 2 : 0) + (d < level ? 1 : 0);
      if (kind === 0 || kind === 15) continue;
      const [top, right, bottom, left] = [
        name(x, y, false),
        name(x + 1, y, true),
        name(x, y + 1, false),
        name(x, y, true),
      ];
      const middleIsDark = (a + b + c + d) / 4 < level;
      for (const [from, to] of links(kind, middleIsDark)) {
        const side = [top, right, bottom, left];
        link(side[from], side[to]);
      }
    }
  }
  const outlines: Point[][] = [];
  for (const first of starts.keys()) {
    const outline: Point[] = [];
    for (let key: string | undefined = first; key !== undefined;) {
      const here = starts.get(key);
      if (!here) break;
      starts.delete(key);
      outline.push(here.point);
      key = here.to;
    }
    if (outline.length > 2) outlines.push(outline);
  }
  return outlines;
}

/** Which sides of a cell (0 top, 1 right, 2 bottom, 3 left) an outline joins, by which of its corners are dark. */
function links(kind: number, middleIsDark: boolean): [number, number][] {
  switch (kind) {
    case 8:
      return [[3, 0]];
    case 4:
      return [[0, 1]];
    case 2:
      return [[1, 2]];
    case 1:
      return [[2, 3]];
    case 12:
      return [[3, 1]];
    case 6:
      return [[0, 2]];
    case 3:
      return [[1, 3]];
    case 9:
      return [[2, 0]];
    case 7:
      return [[0, 3]];
    case 11:
      return [[1, 0]];
    case 13:
      return [[2, 1]];
    case 14:
      return [[3, 2]];
    case 10:
      return middleIsDark
        ? [
            [1, 0],
            [3, 2],
          ]
        : [
            [3, 0],
            [1, 2],
          ];
    default:
      return middleIsDark
        ? [
            [0, 3],
            [2, 1],
          ]
        : [
            [0, 1],
            [2, 3],
          ];
  }
}

/** The area within an outline; its sign tells which way round it runs. */
export const signedArea = (outline: readonly Point[]): number =>
  outline.reduce((sum, p, i) => {
    const q = outline[(i + 1) % outline.length];
    return sum + p.x * q.y - q.x * p.y;
  }, 0) / 2;
