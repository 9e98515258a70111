import type { Drawing, Sheet } from '../drawing/schema';
import { chosenOnly } from './chosen';
import type { Delivery } from './delivery';

/** A file that comes of a delivery: what it is of, those that share its paper, and what tells it from the others. */
export type WantedFile = { readonly name: string; readonly drawing: Drawing; readonly beside?: readonly Drawing[] };

/**
 * The files that a delivery comes to: one, or one for each visible sheet or folder that has something on it; on paper that
 * holds several, so many of them share a file. A sheet outside of all folders is a file by itself.
 * @throws RangeError when nothing is seen.
 */
export function filesOf(drawing: Drawing, wanted: Delivery): WantedFile[] {
  const seen = wanted.scope === 'chosen' ? chosenOnly(drawing, new Set(wanted.chosen)) : drawing;
  const sheets = seen.sheets.filter((s) => s.visible && s.items.length > 0);
  if (sheets.length === 0)
    throw new RangeError(
      wanted.scope === 'chosen' ? 'nothing that is seen is chosen' : 'there is nothing visible on it',
    );
  if (wanted.each === 'all') return [{ name: '', drawing }];
  const parts = partsOf(drawing, sheets, wanted.each).map(({ name, ids }) => ({
    name,
    drawing: { ...drawing, sheets: drawing.sheets.map((s) => (ids.has(s.id) ? s : { ...s, visible: false })) },
  }));
  const count = wanted.paper?.count ?? 1;
  if (count === 1) return parts;
  return Array.from({ length: Math.ceil(parts.length / count) }, (_, i) => {
    const own = parts.slice(i * count, (i + 1) * count);
    return { name: own.map((p) => p.name).join(', '), drawing: own[0].drawing, beside: own.map((p) => p.drawing) };
  });
}

function partsOf(
  { folders }: Drawing,
  sheets: readonly Sheet[],
  each: 'sheet' | 'folder',
): { name: string; ids: ReadonlySet<string> }[] {
  const parts = new Map<string, { name: string; ids: Set<string> }>();
  for (const s of sheets) {
    const folder = each === 'folder' ? folders.find((f) => f.id === s.folder) : undefined;
    const key = folder ? `folder ${folder.id}` : `sheet ${s.id}`;
    const part = parts.get(key) ?? { name: folder?.name ?? s.name, ids: new Set<string>() };
    part.ids.add(s.id);
    parts.set(key, part);
  }
  return [...parts.values()];
}

const MOST_NAME = 120;

/** A name that any disk takes, made of parts of names; unlike all that were `taken`, and then one of them. */
export function fileName(parts: readonly string[], ending: string, taken = new Set<string>()): string {
  const plain = parts
    .map((p) =>
      p
        .normalize('NFC')
        .replace(/[\p{C}/\\:*?"<>|]+/gu, ' ')
        .replace(/\s+/g, ' ')
        .replace(/^[. ]+|[. ]+$/g, ''),
    )
    .filter((p) => p !== '')
    .join(', ')
    .slice(0, MOST_NAME);
  const base = plain || 'drawing';
  let name = `${base}.${ending}`;
  for (let k = 2; taken.has(name.toLowerCase()); k++) name = `${base} ${k}.${ending}`;
  taken.add(name.toLowerCase());
  return name;
}
