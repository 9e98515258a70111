import { groupsAround } from '../drawing/find';
import type { Matrix } from '../geometry/matrix';
import type { Placed } from '../drawing/item';
import { isFlat, isGroup, isLine } from '../drawing/items';
import type { Blend, Laying } from '../drawing/paint';
import { opacityOf } from '../drawing/placement';
import type { Drawing, Item, Line, Picture, Sheet, Style } from '../drawing/schema';
import { isPlainStroke } from '../ink/body';
import { inkOf, isSameInk, type Ink } from './ink';
import { shownFlat } from './shownFlat';

/**
 * A drawing as a tree of what is painted, from the bottom up: the one place that says what is seen. Tiles, loupe, the view of
 * what was before, thumbnails and files all walk it.
 */
export type Scene = readonly SceneNode[];
export type SceneNode = LineNode | PictureNode | LayerNode;

/** An area is filled within the line itself or its stroke's body (nonzero, but for lines that say so); a stroke is drawn along the line. */
export type Part =
  | { readonly kind: 'area'; readonly within: 'line' | 'body'; readonly ink: Ink; readonly evenOdd?: true }
  | ({ readonly kind: 'stroke'; readonly ink: Ink } & Pick<Style, 'width' | 'cap' | 'join' | 'miterLimit' | 'dash'>);

/** A line's parts in their order. Nodes stay the same objects for as long as what they show stays the same. */
export type LineNode = {
  readonly kind: 'line';
  readonly line: Line;
  readonly parts: readonly Part[];
  readonly tag: string;
};

/** A placed picture, corrected, perhaps tinted, with `opacity` and `blend` over what is below. */
export type PictureNode = {
  readonly kind: 'picture';
  readonly placed: Placed & { readonly tint?: string | null };
  readonly opacity: number;
  readonly blend: Blend;
};

/**
 * What is painted by itself, then laid over what is below as one; nothing of it is seen outside of `clip`. A `map` is only of
 * what is put together for a file: all that is in the layer, its clip too, lies under it.
 */
export type LayerNode = Layer & { readonly kind: 'layer'; readonly children: Scene; readonly map?: Matrix };
export type Layer = {
  /** The sheet, group or line that it is of. */
  readonly id: string;
  readonly name?: string;
  readonly opacity: number;
  readonly blend: Blend;
  readonly clip?: Line;
};

export type SceneOptions = {
  /** Whether the references lie below the art. */
  readonly references?: boolean;
  /** Just this sheet, where one is seen alone. */
  readonly solo?: string | null;
};

/** What is seen of a drawing. Each visible sheet is a layer, in the order of the stack. */
export function sceneOf(d: Drawing, { references = false, solo = null }: SceneOptions = {}): Scene {
  const placed = references ? referencesOf(d) : [];
  const sheets = d.sheets.filter((s) => s.visible && (solo === null || s.id === solo));
  return [...placed, ...sheets.map((s) => sheetNode(d, s))];
}

/** The references that are seen, dimmed, the lowest first. */
export const referencesOf = (d: Pick<Drawing, 'references' | 'dim'>): PictureNode[] =>
  d.references.flatMap((r): PictureNode[] =>
    r.visible ? [{ kind: 'picture', placed: r, opacity: opacityOf(d, r), blend: r.blend }] : [],
  );

const laid = ({ opacity = 1, blend = 'normal' }: Laying) => ({ opacity, blend });

const sheetNode = (d: Drawing, s: Sheet): LayerNode => ({
  kind: 'layer',
  id: s.id,
  name: s.name,
  ...laid({ opacity: s.opacity }),
  children: s.items.map((item) => itemNode(d, item, s.tag)),
});

function itemNode(d: Drawing, item: Item, tag: string): SceneNode {
  if (isLine(item)) return withLaying(item, lineNode(d, item, tag));
  if (isFlat(item)) return withLaying(shownFlat(item), lineNode(d, shownFlat(item), tag));
  if (!isGroup(item)) return pictureNode(item);
  const children = item.items.map((child) => itemNode(d, child, tag));
  const { id, name, clip } = item;
  return { kind: 'layer', id, name, ...laid(item), ...(clip && { clip }), children };
}

const pictureNode = (item: Picture): PictureNode => ({ kind: 'picture', placed: item, ...laid(item) });

function withLaying(line: Line, node: LineNode): SceneNode {
  const laying = laid(line);
  if (laying.opacity === 1 && laying.blend === 'normal') return node;
  return { kind: 'layer', id: line.id, ...laying, children: [node] };
}

const nodes = new WeakMap<Line, LineNode>();

/** A line of a drawing, ready to be painted. */
export function lineNode(d: Drawing, line: Line, tag: string): LineNode {
  const { fill, stroke } = line.style;
  const known = nodes.get(line);
  if (known && known.tag === tag && typeof (fill ?? '') === 'string' && typeof stroke === 'string') return known;
  const parts = partsOf(line, (paint) => inkOf(d, paint, line));
  if (known && known.tag === tag && known.parts.every((p, i) => isSameInk(p.ink, parts[i].ink))) return known;
  const node: LineNode = { kind: 'line', line, parts, tag };
  nodes.set(line, node);
  return node;
}

/** How a line is painted: its fill and its stroke, which is drawn where it is plain, and else an area of its own. */
function partsOf(line: Line, ink: (paint: Style['stroke']) => Ink): Part[] {
  const { fill, stroke, width, cap, join, miterLimit, dash, strokeBelow, fillRule } = line.style;
  const area: Part[] = fill
    ? [{ kind: 'area', within: 'line', ink: ink(fill), ...(fillRule && { evenOdd: true }) }]
    : [];
  const own: Part[] = !isPlainStroke(line)
    ? [{ kind: 'area', within: 'body', ink: ink(stroke) }]
    : width > 0
      ? [
          {
            kind: 'stroke',
            ink: ink(stroke),
            width,
            cap,
            join,
            ...(miterLimit && { miterLimit }),
            ...(dash && { dash }),
          },
        ]
      : [];
  return strokeBelow ? [...own, ...area] : [...area, ...own];
}

/** Something that is painted, with the layers that it lies in, the outermost first: only those that change how it looks. */
export type Leaf = { readonly node: LineNode | PictureNode; readonly layers: readonly Layer[] };

/** The id of the line or picture that is painted. */
export const paintedId = (node: Leaf['node']): string => (node.kind === 'line' ? node.line.id : node.placed.id);

/** All that is painted, in its order, layer or not. */
export function leavesOf(scene: Scene): Leaf[] {
  const leaves: Leaf[] = [];
  const walk = (list: Scene, layers: readonly Layer[]): void => {
    for (const node of list) {
      if (node.kind !== 'layer') leaves.push({ node, layers });
      else walk(node.children, isPlainLayer(node) ? layers : [...layers, layerOf(node)]);
    }
  };
  walk(scene, []);
  return leaves;
}

/** One line of a drawing as it is painted, with the layers that it lies in. */
export function leafOf(d: Drawing, sheet: Sheet, line: Line): Leaf {
  const around: Layer[] = [
    { id: sheet.id, ...laid({ opacity: sheet.opacity }) },
    ...groupsAround(sheet, line.id).map((g) => ({ id: g.id, ...laid(g), ...(g.clip && { clip: g.clip }) })),
    { id: line.id, ...laid(line) },
  ];
  return { node: lineNode(d, line, sheet.tag), layers: around.filter((l) => !isPlainLayer(l)) };
}

const layerOf = ({ id, opacity, blend, clip }: LayerNode): Layer => ({ id, opacity, blend, ...(clip && { clip }) });

/** Whether what is in a layer looks just as it would without it. */
export const isPlainLayer = ({ opacity, blend, clip }: Layer): boolean => opacity === 1 && blend === 'normal' && !clip;

export const isSameLayer = (a: Layer, b: Layer): boolean =>
  a === b || (a.id === b.id && a.opacity === b.opacity && a.blend === b.blend && a.clip === b.clip);
