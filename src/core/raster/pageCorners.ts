import type { Point } from '../geometry/point';
import { edgePoints, logValues, reducedTo, type EdgePoint } from './edges';
import { assertGrayImage, type GrayImage } from './grayImage';
import { isConvex, type Quad } from './rectify';

/** A line with a bright side: places p with n · p = at; n, of length 1, points to the bright side. */
type EdgeLine = { nx: number; ny: number; at: number; votes: number };

const SEARCHED = 640;
const LEAST_CONTRAST = 0.045;
const MOST_LINES = 22;
const ANGLES = 180;
/** A picture's own edge stands in for a side of the page that it cuts off: counted as a side seen for this share, the least that will do. */
const CUT_OFF = 0.36;

/**
 * The corners of a sheet of paper in a photo, from its upper left on, clockwise, in the picture's px; null when no sheet
 * is found. The strongest four-sided figure among the lines along which dark ground meets light paper: lines by Hough's
 * transform with the gradient's own direction (Hough 1962; Duda and Hart 1972; rectangles from lines as in Zhang and He
 * 2007, "Whiteboard scanning and image enhancement"), judged by how much of each side is seen; each side is then fitted
 * anew to the edge in the whole picture, stray places weighing nothing (Tukey's weights).
 * @throws RangeError for a picture without pixels.
 */
export function pageCorners(image: GrayImage): Quad | null {
  assertGrayImage(image);
  const { image: small, by } = reducedTo(image, SEARCHED);
  const points = edgePoints(small, 1.2, LEAST_CONTRAST);
  const lines = [...strongestLines(points, small), ...frameLines(small)];
  const found = bestQuad(lines, edgeMap(points, small), small);
  if (!found) return null;
  const sides = found.map((l) => refinedSide({ ...l, at: l.at * by }, found, image, by));
  return inOrder(meetings(sides));
}

/** Lines with many edge points on them, whose bright sides agree. */
function strongestLines(points: readonly EdgePoint[], { width, height }: GrayImage): EdgeLine[] {
  const reach = Math.ceil(Math.hypot(width, height));
  const rows = 2 * reach + 1;
  const votes = new Float32Array(ANGLES * rows);
  for (const p of points) {
    const own = (Math.atan2(p.ny, p.nx) / (2 * Math.PI)) * ANGLES;
    const weight = Math.min(p.strength, 0.25);
    for (let k = -2; k <= 2; k++) {
      const angle = (Math.round(own) + k + 2 * ANGLES) % ANGLES;
      const a = (angle / ANGLES) * 2 * Math.PI;
      votes[angle * rows + Math.round(Math.cos(a) * p.x + Math.sin(a) * p.y) + reach] += weight;
    }
  }
  const lines: EdgeLine[] = [];
  const summed = (angle: number, row: number): number =>
    votes[angle * rows + row] + 0.7 * ((votes[angle * rows + row - 1] ?? 0) + (votes[angle * rows + row + 1] ?? 0));
  for (let n = 0; n < MOST_LINES; n++) {
    let best = { angle: 0, row: 0, votes: 0 };
    for (let angle = 0; angle < ANGLES; angle++) {
      for (let row = 1; row < rows - 1; row++) {
        const v = summed(angle, row);
        if (v > best.votes) best = { angle, row, votes: v };
      }
    }
    if (best.votes < 0.04 * 0.25 * Math.min(width, height)) break;
    const a = (best.angle / ANGLES) * 2 * Math.PI;
    lines.push(drawnTo(points, { nx: Math.cos(a), ny: Math.sin(a), at: best.row - reach, votes: best.votes }));
    for (let k = -3; k <= 3; k++) {
      const angle = (best.angle + k + ANGLES) % ANGLES;
      const spread = 5 + Math.abs(k) * 8;
      votes.fill(
        0,
        angle * rows + Math.max(0, best.row - spread),
        angle * rows + Math.min(rows, best.row + spread + 1),
      );
    }
  }
  return lines;
}

/** A line moved to the edge points that lie along it: the transform's own steps are too coarse for a long side. */
function drawnTo(points: readonly EdgePoint[], start: EdgeLine): EdgeLine {
  let line = start;
  for (const reach of [5, 3, 2]) {
    const own = points.filter(
      (p) =>
        Math.abs(line.nx * p.x + line.ny * p.y - line.at) < reach && line.nx * p.nx + line.ny * p.ny > Math.cos(0.25),
    );
    line = fitted(line, own) ?? line;
  }
  return line;
}

/** The picture's own edges, bright within. */
const frameLines = ({ width, height }: GrayImage): EdgeLine[] => [
  { nx: 1, ny: 0, at: 0, votes: 0 },
  { nx: -1, ny: 0, at: -width, votes: 0 },
  { nx: 0, ny: 1, at: 0, votes: 0 },
  { nx: 0, ny: -1, at: -height, votes: 0 },
];

/** For each pixel, the direction to the bright side of the edge there or beside it, in 1…255; 0 where there is none. */
function edgeMap(points: readonly EdgePoint[], { width, height }: GrayImage): Uint8Array {
  const map = new Uint8Array(width * height);
  for (const p of points) {
    const direction = 1 + Math.floor(((Math.atan2(p.ny, p.nx) + Math.PI) / (2 * Math.PI)) * 254.99);
    for (let dy = -1; dy <= 1; dy++) {
      for (let dx = -1; dx <= 1; dx++) {
        const [x, y] = [Math.floor(p.x) + dx, Math.floor(p.y) + dy];
        if (x >= 0 && y >= 0 && x < width && y < height) map[y * width + x] ||= direction;
      }
    }
  }
  return map;
}

function bestQuad(lines: readonly EdgeLine[], map: Uint8Array, image: GrayImage): EdgeLine[] | null {
  let best: { sides: EdgeLine[]; score: number } | null = null;
  const faces = (a: EdgeLine, b: EdgeLine): boolean => a.nx * b.nx + a.ny * b.ny < -0.75;
  const crosses = (a: EdgeLine, b: EdgeLine): boolean => Math.abs(a.nx * b.nx + a.ny * b.ny) < 0.6;
  const pairs: [EdgeLine, EdgeLine][] = [];
  lines.forEach((a, i) => lines.slice(i + 1).forEach((b) => faces(a, b) && pairs.push([a, b])));
  for (let i = 0; i < pairs.length; i++) {
    for (let j = i + 1; j < pairs.length; j++) {
      const [[a, c], [b, d]] = [pairs[i], pairs[j]];
      if (a === b || a === d || c === b || c === d) continue;
      if (!crosses(a, b) || !crosses(a, d) || !crosses(c, b) || !crosses(c, d)) continue;
      const sides = [a, b, c, d];
      const score = quadScore(sides, map, image);
      if (score > (best?.score ?? 0)) best = { sides, score };
    }
  }
  return best?.sides ?? null;
}

/** How well four sides are seen: the length of edge along them, less what is missing; 0 for a figure that cannot be a page. */
function quadScore(sides: readonly EdgeLine[], map: Uint8Array, { width, height }: GrayImage): number {
  const corners = meetings(sides);
  const margin = 0.25 * Math.max(width, height);
  if (corners.some((p) => !p || p.x < -margin || p.y < -margin || p.x > width + margin || p.y > height + margin))
    return 0;
  if (!isConvex(corners)) return 0;
  const middle = { x: (corners[0].x + corners[2].x) / 2, y: (corners[0].y + corners[2].y) / 2 };
  if (sides.some((s) => s.nx * middle.x + s.ny * middle.y < s.at)) return 0;
  let score = 0;
  let framed = 0;
  for (let k = 0; k < 4; k++) {
    const [p, q] = [corners[k], corners[(k + 1) % 4]];
    const side = sides[(k + 1) % 4];
    const length = Math.hypot(q.x - p.x, q.y - p.y);
    if (length < 0.12 * Math.max(width, height)) return 0;
    const seen = side.votes === 0 ? CUT_OFF : sideSeen(side, p, q, map, width, height);
    if (side.votes === 0) framed++;
    if (seen < 0.35) return 0;
    score += length * (seen - 0.3);
  }
  return framed > 2 ? 0 : score;
}

/** What share of a side, as far as it lies in the picture, has an edge on it that is bright on the right side. */
function sideSeen(side: EdgeLine, p: Point, q: Point, map: Uint8Array, width: number, height: number): number {
  const n = Math.max(8, Math.round(Math.hypot(q.x - p.x, q.y - p.y) / 3));
  const wanted = Math.atan2(side.ny, side.nx) + Math.PI;
  let [seen, within] = [0, 0];
  for (let i = 0; i <= n; i++) {
    const [x, y] = [Math.floor(p.x + ((q.x - p.x) * i) / n), Math.floor(p.y + ((q.y - p.y) * i) / n)];
    if (x < 2 || y < 2 || x >= width - 2 || y >= height - 2) continue;
    within++;
    const direction = map[y * width + x];
    if (direction === 0) continue;
    const off = Math.abs(((direction - 1) / 255) * 2 * Math.PI - wanted) % (2 * Math.PI);
    if (Math.min(off, 2 * Math.PI - off) < 0.5) seen++;
  }
  return within < n / 3 ? 0 : seen / within;
}

/** Where each side meets the next. */
const meetings = (sides: readonly EdgeLine[]): Point[] =>
  sides.map((a, k) => {
    const b = sides[(k + 1) % 4];
    const d = a.nx * b.ny - a.ny * b.nx;
    return { x: (a.at * b.ny - b.at * a.ny) / d, y: (b.at * a.nx - a.at * b.nx) / d };
  });

/** A side fitted to the edge in the whole picture; the same one where it is the picture's own edge. */
function refinedSide(side: EdgeLine, found: readonly EdgeLine[], image: GrayImage, by: number): EdgeLine {
  if (side.votes === 0) return side;
  const corners = meetings(found);
  const k = found.findIndex((l) => l.nx === side.nx && l.ny === side.ny && l.at * by === side.at);
  const [p, q] = [corners[(k + 3) % 4], corners[k]].map((c) => ({ x: c.x * by, y: c.y * by }));
  let line = side;
  for (const reach of [4 * by + 3, 1.5 * by + 3]) line = fitted(line, edgePlaces(line, p, q, image, reach)) ?? line;
  return line;
}

/** Along a side, where across it the picture brightens most. */
function edgePlaces(side: EdgeLine, p: Point, q: Point, image: GrayImage, reach: number): Point[] {
  const places: Point[] = [];
  const values = logOf(image);
  const n = 240;
  for (let i = 6; i <= n - 6; i++) {
    const on = { x: p.x + ((q.x - p.x) * i) / n, y: p.y + ((q.y - p.y) * i) / n };
    const off = side.at - (side.nx * on.x + side.ny * on.y);
    const foot = { x: on.x + off * side.nx, y: on.y + off * side.ny };
    let best = { d: 0, rise: 0.06 };
    for (let d = -reach; d <= reach; d += 0.5) {
      const at = (k: number): number => sampled(values, image, foot.x + (d + k) * side.nx, foot.y + (d + k) * side.ny);
      const rise = at(1.5) - at(-1.5);
      if (rise > best.rise) best = { d, rise };
    }
    if (best.rise > 0.06) places.push({ x: foot.x + best.d * side.nx, y: foot.y + best.d * side.ny });
  }
  return places;
}

const logs = new WeakMap<GrayImage, Float32Array>();

function logOf(image: GrayImage): Float32Array {
  let values = logs.get(image);
  if (!values) logs.set(image, (values = logValues(image, 0.8)));
  return values;
}

function sampled(values: Float32Array, { width, height }: GrayImage, x: number, y: number): number {
  const [px, py] = [Math.min(width - 1.001, Math.max(0, x - 0.5)), Math.min(height - 1.001, Math.max(0, y - 0.5))];
  const [l, t] = [Math.floor(px), Math.floor(py)];
  const [fx, fy] = [px - l, py - t];
  const i = t * width + l;
  const below = t + 1 < height ? width : 0;
  return (
    (values[i] * (1 - fx) + values[i + 1] * fx) * (1 - fy) +
    (values[i + below] * (1 - fx) + values[i + below + 1] * fx) * fy
  );
}

/** The line through places, those far off weighing nothing; null when too few agree. */
function fitted(start: EdgeLine, places: readonly Point[]): EdgeLine | null {
  if (places.length < 20) return null;
  let line = start;
  for (const width of [8, 4, 2, 1.5, 1.5]) {
    const gaps = places.map((p) => line.nx * p.x + line.ny * p.y - line.at).sort((a, b) => a - b);
    const middle = gaps[gaps.length >> 1];
    const scale = width * Math.max(1, median(gaps.map((g) => Math.abs(g - middle))));
    let [w, x, y] = [0, 0, 0];
    const weights = places.map((p) => {
      const gap = (line.nx * p.x + line.ny * p.y - line.at - middle) / scale;
      return Math.abs(gap) < 1 ? (1 - gap * gap) ** 2 : 0;
    });
    places.forEach((p, i) => {
      w += weights[i];
      x += weights[i] * p.x;
      y += weights[i] * p.y;
    });
    if (w < 12) return null;
    [x, y] = [x / w, y / w];
    let [xx, xy, yy] = [0, 0, 0];
    places.forEach((p, i) => {
      xx += weights[i] * (p.x - x) ** 2;
      xy += weights[i] * (p.x - x) * (p.y - y);
      yy += weights[i] * (p.y - y) ** 2;
    });
    const along = 0.5 * Math.atan2(2 * xy, xx - yy);
    let [nx, ny] = [-Math.sin(along), Math.cos(along)];
    if (nx * start.nx + ny * start.ny < 0) [nx, ny] = [-nx, -ny];
    line = { nx, ny, at: nx * x + ny * y, votes: start.votes };
  }
  return line;
}

const median = (values: number[]): number => values.sort((a, b) => a - b)[values.length >> 1];

/** Four corners from the upper left one on, clockwise. */
function inOrder(corners: readonly Point[]): Quad {
  const middle = { x: 0, y: 0 };
  for (const p of corners) {
    middle.x += p.x / 4;
    middle.y += p.y / 4;
  }
  const around = [...corners].sort(
    (a, b) => Math.atan2(a.y - middle.y, a.x - middle.x) - Math.atan2(b.y - middle.y, b.x - middle.x),
  );
  const first = around.reduce((best, p, i) => (p.x + p.y < around[best].x + around[best].y ? i : best), 0);
  return [0, 1, 2, 3].map((k) => around[(first + k) % 4]) as Quad;
}
