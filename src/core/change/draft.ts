import { indexInSheet, keepPlaces } from '../drawing/find';
import type { Drawing, Line, Sheet } from '../drawing/schema';
import { ChangeError } from './changeError';

/** The lines of one sheet while a change is made: copied once, however many of its steps touch them. */
class LineList {
  readonly lines: Line[];
  private shifted = false;
  /** Worked out when first needed after lines have come or gone. */
  private places: Map<string, number> | null = null;

  constructor(private readonly before: readonly Line[]) {
    this.lines = [...before];
  }

  placeOf(sheet: Sheet, id: string): number {
    if (!this.shifted) return indexInSheet(sheet, id);
    this.places ??= new Map(this.lines.map((l, i) => [l.id, i]));
    return this.places.get(id) ?? -1;
  }

  insert(index: number, line: Line): void {
    const isLast = index === this.lines.length;
    if (!this.shifted) this.places = isLast ? new Map(this.before.map((l, i) => [l.id, i])) : null;
    this.shifted = true;
    if (isLast) {
      this.lines.push(line);
      this.places?.set(line.id, index);
    } else this.spliced(index, 0, line);
  }

  remove(index: number): void {
    this.shifted = true;
    if (index < this.lines.length - 1) return this.spliced(index, 1);
    const last = this.lines.pop();
    if (last) this.places?.delete(last.id);
  }

  private spliced(index: number, gone: number, ...come: Line[]): void {
    this.lines.splice(index, gone, ...come);
    this.places = null;
  }

  /** What the list has come to. */
  finished(): readonly Line[] {
    if (!this.shifted) keepPlaces(this.before, this.lines);
    return this.lines;
  }
}

/**
 * A drawing while a change is made to it: steps work on lists that are copied once a change, not once a step. What no step
 * touches is shared with the drawing before.
 */
export class Draft {
  private readonly lists = new Map<string, LineList>();

  constructor(private now: Drawing) {}

  /** The drawing but for the lines that are being changed. */
  get drawing(): Omit<Drawing, 'sheets'> & { readonly sheets: readonly Omit<Sheet, 'lines'>[] } {
    return this.now;
  }

  /** Takes over all but the sheets. */
  set(drawing: Draft['drawing']): void {
    this.now = { ...drawing, sheets: this.now.sheets };
  }

  /** @throws ChangeError when there is none. */
  private sheet(id: string): Sheet {
    const sheet = this.now.sheets.find((s) => s.id === id);
    if (!sheet) throw new ChangeError(`sheet ${id} is not there`);
    return sheet;
  }

  private listOf(id: string): LineList {
    let list = this.lists.get(id);
    if (!list) this.lists.set(id, (list = new LineList(this.sheet(id).lines)));
    return list;
  }

  linesOf(sheet: string): readonly Line[] {
    return (this.lists.get(sheet) ?? this.sheet(sheet)).lines;
  }

  /** Where a line lies in its sheet; -1 where it does not. @throws ChangeError without the sheet. */
  placeOf(sheet: string, id: string): number {
    return this.placeIn(this.sheet(sheet), id);
  }

  private placeIn(sheet: Sheet, id: string): number {
    return this.lists.get(sheet.id)?.placeOf(sheet, id) ?? indexInSheet(sheet, id);
  }

  /** The sheet that a line is on, and its place there. */
  find(id: string): { sheet: string; index: number; line: Line } | undefined {
    for (const sheet of this.now.sheets) {
      const index = this.placeIn(sheet, id);
      if (index >= 0) return { sheet: sheet.id, index, line: (this.lists.get(sheet.id) ?? sheet).lines[index] };
    }
    return undefined;
  }

  setLine(sheet: string, index: number, line: Line): void {
    this.listOf(sheet).lines[index] = line;
  }

  insertLine(sheet: string, index: number, line: Line): void {
    this.listOf(sheet).insert(index, line);
  }

  removeLine(sheet: string, index: number): void {
    this.listOf(sheet).remove(index);
  }

  /** Makes something of the list of sheets; each has its lines as they are by now. */
  setSheets(make: (sheets: readonly Sheet[]) => readonly Sheet[]): void {
    this.finish();
    this.now = { ...this.now, sheets: make(this.now.sheets) };
  }

  /** The drawing that has come about. */
  finish(): Drawing {
    if (this.lists.size === 0) return this.now;
    const sheets = this.now.sheets.map((s) => {
      const list = this.lists.get(s.id);
      return list ? { ...s, lines: list.finished() } : s;
    });
    this.lists.clear();
    return (this.now = { ...this.now, sheets });
  }
}
