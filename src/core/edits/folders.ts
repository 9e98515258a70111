import type { Drawing, Folder, Line, Sheet } from '../drawing/schema';
import { freshSheet } from '../drawing/schema';
import type { Step } from '../change/change';
import { edit, type Edit } from '../change/edit';
import { tagColours } from './sheets';

const setFolders = (d: Drawing, folders: readonly Folder[]): Step => ({
  step: 'setDrawing',
  before: { folders: d.folders },
  after: { folders },
});

/** A folder, given by its name, and the names of the sheets in it; a sheet that stands alone has no folder. */
export type Planned = { folder: string | null; sheets: string[] };

/**
 * A plan as a person writes it: parts apart by semicolons or line ends; a part with a colon is a folder of the sheets
 * named after it, apart by commas. "stem; leaves: left, right, veins; pear". Empty names are passed over.
 */
export function readPlan(text: string): Planned[] {
  return text
    .split(/[;\n]/)
    .map((part) => part.trim())
    .filter((part) => part !== '')
    .map((part): Planned => {
      const [head, ...rest] = part.split(':');
      const names = (rest.length > 0 ? rest.join(':') : head)
        .split(',')
        .map((s) => s.trim().slice(0, 200))
        .filter((s) => s !== '');
      return { folder: rest.length > 0 ? head.trim().slice(0, 200) || 'Folder' : null, sheets: names };
    })
    .filter((p) => p.sheets.length > 0);
}

/** The sheets and folders of a plan, the first named on top; tag colours are given out so that neighbours differ. */
export function addPlan(d: Drawing, plan: readonly Planned[], id: () => string): Edit {
  const folders = plan.flatMap((p): Folder[] => (p.folder === null ? [] : [{ id: id(), name: p.folder, open: true }]));
  let k = 0;
  let tag = d.sheets.length;
  const fromTop = plan.flatMap((p): Sheet[] => {
    const folder = p.folder === null ? null : folders[k++].id;
    return p.sheets.map((name) => ({ ...freshSheet(id(), name, tagColours[tag++ % tagColours.length]), folder }));
  });
  const sheets = fromTop.reverse();
  return edit(
    'Plan the parts',
    folders.length > 0 ? setFolders(d, [...d.folders, ...folders]) : [],
    sheets.map((sheet, i): Step => ({ step: 'insertSheet', index: d.sheets.length + i, sheet: sheet as never })),
  );
}

/** Lines in a folder of their own, on new sheets on top, the first of them undermost. */
export function addFolderOfLines(
  d: Drawing,
  folder: Pick<Folder, 'id' | 'name'>,
  sheets: readonly { id: string; name: string; lines: readonly Line[] }[],
  label: string,
): Edit {
  return edit(
    label,
    setFolders(d, [...d.folders, { ...folder, open: true }]),
    sheets.map(({ id, name, lines }, i): Step => {
      const index = d.sheets.length + i;
      const sheet = { ...freshSheet(id, name, tagColours[index % tagColours.length]), folder: folder.id, items: lines };
      return { step: 'insertSheet', index, sheet: sheet as never };
    }),
  );
}

export function setFolder(d: Drawing, id: string, after: Partial<Omit<Folder, 'id'>>, label: string): Edit {
  const at = d.folders.findIndex((f) => f.id === id);
  if (at < 0 || Object.entries(after).every(([k, v]) => d.folders[at][k as keyof Folder] === v)) return edit(label);
  return edit(label, setFolders(d, d.folders.with(at, { ...d.folders[at], ...after })));
}

/** A folder taken away; its sheets stay where they are. */
export function removeFolder(d: Drawing, id: string): Edit {
  if (!d.folders.some((f) => f.id === id)) return edit('Take folder apart');
  return edit(
    'Take folder apart',
    d.sheets
      .filter((s) => s.folder === id)
      .map((s): Step => ({ step: 'setSheet', id: s.id, before: { folder: id }, after: { folder: null } })),
    setFolders(
      d,
      d.folders.filter((f) => f.id !== id),
    ),
  );
}

/** A sheet moved to a place in the stack, and into a folder or out of one. */
export function moveSheetInto(d: Drawing, id: string, to: number, folder: string | null): Edit {
  const from = d.sheets.findIndex((s) => s.id === id);
  if (from < 0) return edit('Reorder sheets');
  const place = Math.min(d.sheets.length - 1, Math.max(0, to));
  const was = d.sheets[from].folder;
  return edit(
    'Reorder sheets',
    was === folder ? [] : { step: 'setSheet', id, before: { folder: was }, after: { folder } },
    from === place ? [] : { step: 'moveSheet', from, to: place },
  );
}
