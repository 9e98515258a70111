import { alphaOf, opaque, withAlpha } from '../colour/colour';
import { toneOfStep, valueStep, withTone } from '../colour/tone';
import { flatsIn } from '../drawing/items';
import type { Drawing } from '../drawing/schema';
import type { Ink } from '../scene/ink';
import { fillOf, isFill, strokeOf } from '../scene/halves';
import type { LineNode, Scene, SceneNode } from '../scene/scene';
import type { Delivery } from './delivery';

/** What of a scene is wanted: all of it, just strokes, just colours, or all in a few greys. What shows nothing is left out. */
export function shownOf(scene: Scene, { shows, steps }: Pick<Delivery, 'shows' | 'steps'>): Scene {
  if (shows === 'all') return scene;
  if (shows === 'squint') return mapped(scene, (node) => (node.kind === 'line' ? inGreys(node, steps) : node));
  const keep = shows === 'lines' ? strokeOf : fillOf;
  return mapped(scene, (node) => (node.kind === 'line' ? keep(node) : shows === 'lines' ? null : node));
}

/** Without the pictures that are items of the drawing. */
export const withoutPictures = (scene: Scene): Scene =>
  mapped(scene, (node) => (node.kind === 'picture' ? null : node));

function mapped(scene: Scene, make: (node: Exclude<SceneNode, { kind: 'layer' }>) => SceneNode | null): Scene {
  return scene.flatMap((node): SceneNode[] => {
    if (node.kind !== 'layer') return [make(node)].filter((n) => n !== null);
    const children = mapped(node.children, make);
    return children.length > 0 ? [{ ...node, children }] : [];
  });
}

function inGreys(node: LineNode, steps: number): LineNode {
  const { line } = node;
  const grey = (colour: string): string => greyOf(colour, steps);
  const parts = node.parts.map((p) => ({ ...p, ink: inkInGreys(p.ink, grey) }));
  // What a file keeps beside a stroke's outline is grey too.
  const own = parts.find((p) => !isFill(p))?.ink;
  return typeof own === 'string'
    ? { ...node, parts, line: { ...line, style: { ...line.style, stroke: own } } }
    : { ...node, parts };
}

const inkInGreys = (ink: Ink, grey: (colour: string) => string): Ink =>
  typeof ink === 'string' ? grey(ink) : { ...ink, stops: ink.stops.map((s) => ({ ...s, colour: grey(s.colour) })) };

/** The grey in the middle of the step of tone that a colour is in; as much is let through as before. */
export function greyOf(colour: string, steps: number): string {
  const plain = opaque(colour);
  const grey = withTone('#808080', toneOfStep(valueStep(plain, steps), steps));
  return withAlpha(grey, alphaOf(colour));
}

/** The greys that all light values of a picture come to, 0…255. */
export const greyTable = (steps: number): Uint8Array =>
  Uint8Array.from({ length: 256 }, (_, v) => {
    const hex = v.toString(16).padStart(2, '0');
    return parseInt(greyOf(`#${hex.repeat(3)}`, steps).slice(1, 3), 16);
  });

/** Flats that lie together on a sheet beside other things, each such row as a layer of its own: nothing looks otherwise. */
export function withFlatsApart(scene: Scene, drawing: Drawing): Scene {
  const flats = new Set(drawing.sheets.flatMap((s) => flatsIn(s.items).map((f) => f.id)));
  if (flats.size === 0) return scene;
  const isOfFlat = (node: SceneNode): boolean =>
    node.kind === 'line' ? flats.has(node.line.id) : node.kind === 'layer' && flats.has(node.id);
  return scene.map((sheet) => {
    if (sheet.kind !== 'layer' || sheet.children.every(isOfFlat) || !sheet.children.some(isOfFlat)) return sheet;
    const children: SceneNode[] = [];
    for (let i = 0; i < sheet.children.length;) {
      let end = i;
      while (end < sheet.children.length && isOfFlat(sheet.children[end])) end++;
      if (end === i) children.push(sheet.children[i++]);
      else {
        const row = sheet.children.slice(i, end);
        children.push({
          kind: 'layer',
          id: `${sheet.id} flats ${i}`,
          name: `${sheet.name ?? ''} flats`.trim(),
          opacity: 1,
          blend: 'normal',
          children: row,
        });
        i = end;
      }
    }
    return { ...sheet, children };
  });
}
