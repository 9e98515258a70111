import RBush from 'rbush';
import { hullBox } from '@/core/geometry/bounds';
import type { Box, Cubic, Line, Point } from '@/core';
import { controlBox, cubicsOf, segmentCount } from '@/core/drawing/run';

export type Segment = { box: Box; run: number; segment: number; cubic: Cubic };

/** A line in the tree: the box of its control points. Its segments are worked out when the pointer first comes near. */
export type Entry = Box & { line: Line; segments: Segment[] | null };

/** Where more lines than this have changed, taking them out and in one by one is slower than all at once. */
const MANY = 200;

type Node = Box & { leaf: boolean; children: (Node | Entry)[] };

type Row = { readonly lines: readonly Line[]; readonly entries: readonly Entry[] };

/** Lines by the boxes of their control points. Follows lists of lines by what differs from those before. */
export class LineTree {
  private readonly tree = new RBush<Entry>();
  private readonly entries = new Map<string, Entry>();
  /** What is in the tree, by the sheets. */
  private rows: ReadonlyMap<string, Row> = new Map();

  entryOf(id: string): Entry | undefined {
    return this.entries.get(id);
  }

  search(box: Box): Entry[] {
    return this.tree.search(box);
  }

  /** Takes over lists of lines, by their sheets. */
  follow(lists: ReadonlyMap<string, readonly Line[]>): void {
    const differing = new Differing();
    const shifted = [...new Set([...this.rows.keys(), ...lists.keys()])].filter((sheet) =>
      differing.compare(this.rows.get(sheet) ?? NO_ROW, lists.get(sheet) ?? NO_ROW.lines),
    );
    const { gone, come, changed } = differing.settled();
    this.exchange(gone, come.map(entryFor));
    this.reshape(changed);
    const entriesOf = (sheet: string, lines: readonly Line[]): readonly Entry[] =>
      shifted.includes(sheet) ? lines.map((l) => this.entries.get(l.id)!) : (this.rows.get(sheet) ?? NO_ROW).entries;
    this.rows = new Map([...lists].map(([sheet, lines]) => [sheet, { lines, entries: entriesOf(sheet, lines) }]));
  }

  private exchange(gone: ReadonlyMap<string, Entry>, come: readonly Entry[]): void {
    for (const id of gone.keys()) this.entries.delete(id);
    for (const entry of come) this.entries.set(entry.line.id, entry);
    if (gone.size > MANY) {
      this.tree.clear().load([...this.entries.values()]);
      return;
    }
    for (const entry of gone.values()) this.tree.remove(entry);
    if (come.length > MANY) this.tree.load(come);
    else for (const entry of come) this.tree.insert(entry);
  }

  /**
   * Lines have another shape. Very many stay where they are in the tree, and the boxes of its nodes are made to fit again:
   * a search finds as much as before, it may just look at more.
   */
  private reshape(changed: readonly Changed[]): void {
    const areMany = changed.length > MANY;
    for (const { entry, line } of changed) {
      if (!areMany) this.tree.remove(entry);
      setBox(entry, controlBox(line));
      entry.line = line;
      entry.segments = null;
      if (!areMany) this.tree.insert(entry);
    }
    if (areMany) fitBox(this.tree.toJSON() as Node);
  }
}

const NO_ROW: Row = { lines: [], entries: [] };

type Changed = { readonly entry: Entry; readonly line: Line };

/** What differs between lists of lines and those that are in the tree. */
class Differing {
  private readonly gone = new Map<string, Entry>();
  private readonly come: Line[] = [];
  private readonly changed: Changed[] = [];

  /** Whether lines have come, gone or changed places in a list. */
  compare({ lines: before, entries }: Row, after: readonly Line[]): boolean {
    if (before === after) return false;
    let hasShifted = before.length !== after.length;
    let [was, is] = [before.length, after.length];
    if (was !== is)
      while (was > 0 && is > 0 && before[was - 1] === after[is - 1]) {
        was--;
        is--;
      }
    for (let i = 0; i < Math.max(was, is); i++) {
      const [old, line] = [i < was ? before[i] : null, i < is ? after[i] : null];
      if (old === line) continue;
      if (old && line && old.id === line.id) this.becomes(entries[i], line);
      else {
        hasShifted = true;
        if (old) this.gone.set(old.id, entries[i]);
        if (line) this.come.push(line);
      }
    }
    return hasShifted;
  }

  private becomes(entry: Entry, line: Line): void {
    if (entry.line.runs === line.runs) entry.line = line;
    else this.changed.push({ entry, line });
  }

  /** Lines that went in one place and came in another are not new. */
  settled(): { gone: Map<string, Entry>; come: Line[]; changed: Changed[] } {
    const come = this.come.filter((line) => {
      const entry = this.gone.get(line.id);
      if (!entry) return true;
      this.gone.delete(line.id);
      this.becomes(entry, line);
      return false;
    });
    return { gone: this.gone, come, changed: this.changed };
  }
}

/** Written out, for it is done for all nodes of the tree. */
function fitBox(node: Node): void {
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const child of node.children) {
    if (!node.leaf) fitBox(child as Node);
    if (child.minX < minX) minX = child.minX;
    if (child.minY < minY) minY = child.minY;
    if (child.maxX > maxX) maxX = child.maxX;
    if (child.maxY > maxY) maxY = child.maxY;
  }
  setBox(node, { minX, minY, maxX, maxY });
}

function setBox(to: { -readonly [K in keyof Box]: Box[K] }, { minX, minY, maxX, maxY }: Box): void {
  to.minX = minX;
  to.minY = minY;
  to.maxX = maxX;
  to.maxY = maxY;
}

function entryFor(line: Line): Entry {
  const { minX, minY, maxX, maxY } = controlBox(line);
  return { minX, minY, maxX, maxY, line, segments: null };
}

/** The segments of a line in the tree, each with the box of its control points. */
export const segmentsOf = (entry: Entry): Segment[] => (entry.segments ??= worked(entry.line));

const worked = (line: Line): Segment[] =>
  line.runs.flatMap((run, r) => {
    const list = segmentCount(run) > 0 ? cubicsOf(run) : [pointCubic(run.nodes[0].point)];
    return list.map((cubic, segment) => ({ box: hullBox(cubic), run: r, segment, cubic }));
  });

const pointCubic = (p: Point): Cubic => [p, p, p, p];
