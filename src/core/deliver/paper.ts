import { cornersOf } from '../geometry/box';
import { moving, times, type Matrix } from '../geometry/matrix';
import type { Box } from '../geometry/point';
import type { Drawing, Line, Run } from '../drawing/schema';
import type { LineNode, Scene } from '../scene/scene';
import { held, moved, ruled, wrapped, type Composition, type Piece } from './composition';
import type { Paper } from './delivery';

/** Text as outlines: its baseline at y 0, beginning at x 0, one em high. */
export type Lettering = { readonly runs: readonly Run[]; readonly width: number };

/** The title is 6 mm high, and stands in a band of 11; frames are half a point wide, pieces lie 5 mm apart. */
const MM = 96 / 25.4;
const [TITLE, BAND, FRAME, GAP] = [6 * MM, 11 * MM, 2 / 3, 5 * MM];

export type PaperOptions = {
  readonly ground: boolean;
  readonly isRepeated: boolean;
  readonly lettering?: Lettering;
};

/**
 * Pieces laid out on paper, as large as they fit, in rows of equal cells, each once; or one, again and again (`isRepeated`). The
 * paper is turned so that they are largest.
 */
export function onPaper(drawing: Drawing, paper: Paper, pieces: readonly Piece[], options: PaperOptions): Composition {
  const layouts = [paper, { ...paper, width: paper.height, height: paper.width }].map((p) =>
    laidOut(p, pieces[0].view, paper.count),
  );
  const best = layouts[1].scale > layouts[0].scale * (1 + 1e-9) ? layouts[1] : layouts[0];
  const { width, height } = best.paper;
  const cells = options.isRepeated ? best.cells : best.cells.slice(0, pieces.length);
  const placed = cells.map((cell, i) => placedIn(cell, pieces[i % pieces.length]));
  const box = { minX: 0, minY: 0, maxX: width, maxY: height };
  const frames = paper.border ? cells.map((cell) => ruled(cornersOf(cell), FRAME, true)) : [];
  return {
    drawing,
    under: placed.flatMap((p) => p.under),
    art: placed.flatMap((p) => p.art),
    over: [...frames, ...(paper.title && options.lettering ? [titleOf(options.lettering, best.paper)] : [])],
    box,
    ground: { box, colour: (options.ground && drawing.page.ground) || '#ffffff' },
    cut: null,
    unit: drawing.page.unit === 'in' ? 'in' : 'mm',
  };
}

type Layout = { readonly paper: Paper; readonly scale: number; readonly cells: readonly Box[] };

/** The rows and columns of cells in which a piece comes out largest. */
function laidOut(paper: Paper, view: Box, count: number): Layout {
  const { margin, width, height } = paper;
  const top = margin + (paper.title ? BAND : 0);
  const [w, h] = [Math.max(1, width - 2 * margin), Math.max(1, height - top - margin)];
  let best: Layout = { paper, scale: 0, cells: [] };
  for (let columns = 1; columns <= count; columns++) {
    const rows = Math.ceil(count / columns);
    const [cw, ch] = [(w - (columns - 1) * GAP) / columns, (h - (rows - 1) * GAP) / rows];
    if (cw <= 0 || ch <= 0) continue;
    const scale = Math.min(cw / (view.maxX - view.minX), ch / (view.maxY - view.minY));
    if (scale <= best.scale) continue;
    const cells = Array.from({ length: count }, (_, i): Box => {
      const [x, y] = [margin + (i % columns) * (cw + GAP), top + Math.floor(i / columns) * (ch + GAP)];
      return { minX: x, minY: y, maxX: x + cw, maxY: y + ch };
    });
    best = { paper, scale, cells };
  }
  return best;
}

/** A piece in the middle of its cell, as large as it fits within its frame. */
function placedIn(cell: Box, { view, under, art }: Piece): { under: Scene; art: Scene } {
  const [w, h] = [cell.maxX - cell.minX, cell.maxY - cell.minY];
  const inset = Math.min(w, h) * 0.03;
  const k = Math.min((w - 2 * inset) / (view.maxX - view.minX), (h - 2 * inset) / (view.maxY - view.minY));
  const map: Matrix = times(
    { a: k, b: 0, c: 0, d: k, e: (cell.minX + cell.maxX) / 2, f: (cell.minY + cell.maxY) / 2 },
    moving({ x: -(view.minX + view.maxX) / 2, y: -(view.minY + view.maxY) / 2 }),
  );
  const laid = (scene: Scene): Scene => wrapped(scene, [held(view), moved(map)]);
  return { under: laid(under), art: laid(art) };
}

/** The title in the middle of its band; one too long for it is made smaller. */
function titleOf({ runs, width }: Lettering, paper: Paper): LineNode {
  const size = Math.min(TITLE, (paper.width - 2 * paper.margin) / Math.max(width, 1e-6));
  const at = { x: (paper.width - size * width) / 2, y: paper.margin + TITLE };
  const place = (o: { x: number; y: number }) => ({ x: size * o.x, y: size * o.y });
  const line: Line = {
    id: '',
    runs: runs.map((r) => ({
      ...r,
      nodes: r.nodes.map((n) => ({
        ...n,
        point: { x: at.x + size * n.point.x, y: at.y + size * n.point.y },
        in: n.in && place(n.in),
        out: n.out && place(n.out),
      })),
    })),
    style: { stroke: '#000000', width: 0, cap: 'butt', join: 'miter', fill: '#000000' },
  };
  return { kind: 'line', line, tag: '#000000', parts: [{ kind: 'area', within: 'line', ink: '#000000' }] };
}
