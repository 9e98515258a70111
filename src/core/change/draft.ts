import { ownersIn, type Owner, type Place } from '../drawing/find';
import { MOST_DEEP, type Item } from '../drawing/item';
import { isGroup, isLine, mapped } from '../drawing/items';
import type { Drawing, Line, Sheet } from '../drawing/schema';
import { ChangeError } from './changeError';
import { DraftList } from './draftList';

/**
 * A drawing while a change is made to it: steps work on lists that are copied once a change, not once a step. What no step
 * touches is shared with the drawing before.
 */
export class Draft {
  private readonly sheetLists = new Map<string, DraftList>();
  private readonly groupLists = new Map<string, DraftList>();
  /** Where items have been put in the course of the change. */
  private readonly put = new Map<string, Owner>();
  /** Whether a group that is not empty has been put somewhere: what is in it may be anywhere by now. */
  private hasMovedGroups = false;

  constructor(private now: Drawing) {}

  /** The drawing but for the items that are being changed. */
  get drawing(): Omit<Drawing, 'sheets'> & { readonly sheets: readonly Omit<Sheet, 'items'>[] } {
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

  /** @throws ChangeError when there is no such sheet, or no such group on it. */
  private listOf({ sheet, group }: Owner): DraftList {
    if (group === undefined) {
      let list = this.sheetLists.get(sheet);
      if (!list) this.sheetLists.set(sheet, (list = new DraftList(this.sheet(sheet).items)));
      return list;
    }
    let list = this.groupLists.get(group);
    if (!list) {
      const found = this.findIn(sheet, group)?.item;
      if (!found || !isGroup(found)) throw new ChangeError(`group ${group} is not on sheet ${sheet}`);
      this.groupLists.set(group, (list = new DraftList(found.items)));
    }
    return list;
  }

  itemsOf(owner: Owner): readonly Item[] {
    return this.listOf(owner).items;
  }

  /** An item of a sheet as it is by now, in a group or not. @throws ChangeError without the sheet. */
  findIn(sheet: string, id: string): { place: Place; item: Item } | undefined {
    const put = this.put.get(id);
    if (put) return put.sheet === sheet ? this.at(put, id) : undefined;
    const found = this.at({ sheet }, id);
    if (found) return found;
    const group = ownersIn(this.sheet(sheet).items).get(id);
    const within = group !== undefined && this.findIn(sheet, group) ? this.at({ sheet, group }, id) : undefined;
    if (within || !this.hasMovedGroups) return within;
    return this.search({ sheet }, id);
  }

  private at(owner: Owner, id: string): { place: Place; item: Item } | undefined {
    const list = this.listOf(owner);
    const index = list.placeOf(id);
    return index < 0 ? undefined : { place: { ...owner, index }, item: list.items[index] };
  }

  private search(owner: Owner, id: string): { place: Place; item: Item } | undefined {
    const found = this.at(owner, id);
    if (found) return found;
    for (const item of this.itemsOf(owner)) {
      const within = isGroup(item) ? this.search({ sheet: owner.sheet, group: item.id }, id) : undefined;
      if (within) return within;
    }
    return undefined;
  }

  /** An item of whichever sheet. */
  find(id: string): { place: Place; item: Item } | undefined {
    const put = this.put.get(id);
    if (put) return this.at(put, id);
    for (const sheet of this.now.sheets) {
      const found = this.findIn(sheet.id, id);
      if (found) return found;
    }
    return undefined;
  }

  /** A line of a sheet, and its place. @throws ChangeError where there is none. */
  line(sheet: string, id: string): { place: Place; line: Line } {
    const found = this.findIn(sheet, id);
    if (!found || !isLine(found.item)) throw new ChangeError(`line ${id} is not on sheet ${sheet}`);
    return { place: found.place, line: found.item };
  }

  /** An item with all that is in it as it is by now. */
  whole(item: Item): Item {
    if (!isGroup(item)) return item;
    const items = mapped(this.groupLists.get(item.id)?.items ?? item.items, (child) => this.whole(child));
    return items === item.items ? item : { ...item, items };
  }

  /** Makes others of very many items at once. @throws ChangeError where one of them is not there. */
  replaceEach(ids: Iterable<string>, make: (item: Item) => Item): void {
    const lists = this.now.sheets.map((s) => this.listOf({ sheet: s.id }));
    for (const id of ids) {
      const list = lists.find((l) => l.placeOf(id) >= 0);
      if (list) {
        const index = list.placeOf(id);
        list.replace(index, make(list.items[index]));
        continue;
      }
      const found = this.find(id);
      if (!found) throw new ChangeError(`item ${id} is not there`);
      this.replace(found.place, make(found.item));
    }
  }

  replace(place: Place, item: Item): void {
    this.listOf(place).replace(place.index, item);
  }

  /** @throws ChangeError where there is no such place. */
  insert(place: Place, item: Item): void {
    const list = this.listOf(place);
    if (place.index > list.items.length) throw new ChangeError(`no place ${place.index} for an item`);
    this.holdsDeep(place, item);
    list.insert(place.index, item);
    this.isPut(place, item);
  }

  remove(place: Place): void {
    const list = this.listOf(place);
    const item = list.items[place.index];
    list.remove(place.index);
    this.forget(item);
  }

  /** Items of one list moved to another, or to other places of the same; `at` are places before and after, rising. */
  move(from: Owner & { at: readonly number[] }, to: Owner & { at: readonly number[] }): void {
    const [source, target] = [this.listOf(from), this.listOf(to)];
    const items = from.at.map((i) => source.items[i]);
    for (const item of items) this.holdsDeep(to, item);
    if (source === target) source.exchange(new Set(from.at), items, to.at);
    else {
      source.exchange(new Set(from.at), [], []);
      target.exchange(new Set(), items, to.at);
    }
    for (const item of items) this.isPut(to, item);
  }

  /** @throws ChangeError where groups would lie deeper in each other than they can. */
  private holdsDeep({ sheet, group }: Owner, item: Item): void {
    if (!isGroup(item)) return;
    let depth = this.heightOf(item);
    for (let at = group; at !== undefined; at = this.findIn(sheet, at)?.place.group) depth++;
    if (depth > MOST_DEEP) throw new ChangeError(`groups can lie ${MOST_DEEP} deep in each other, and no deeper`);
  }

  private heightOf(item: Item): number {
    if (!isGroup(item)) return 0;
    const items = this.groupLists.get(item.id)?.items ?? item.items;
    return 1 + items.reduce((most, child) => Math.max(most, this.heightOf(child)), 0);
  }

  private isPut({ sheet, group }: Owner, item: Item): void {
    this.put.set(item.id, group === undefined ? { sheet } : { sheet, group });
    if (isGroup(item) && (item.items.length > 0 || this.groupLists.has(item.id))) this.hasMovedGroups = true;
  }

  /** Of an item that goes it is not known any more where it was put, nor what was done within it. */
  private forget(item: Item): void {
    this.put.delete(item.id);
    if (!isGroup(item)) return;
    for (const child of this.groupLists.get(item.id)?.items ?? item.items) this.forget(child);
    this.groupLists.delete(item.id);
  }

  /** Makes something of the list of sheets; each has its items as they are by now. */
  setSheets(make: (sheets: readonly Sheet[]) => readonly Sheet[]): void {
    this.finish();
    this.now = { ...this.now, sheets: make(this.now.sheets) };
  }

  /** The drawing that has come about. */
  finish(): Drawing {
    if (this.sheetLists.size + this.groupLists.size === 0) return this.now;
    const groupsKeep = [...this.groupLists.values()].every((list) => !list.hasShifted);
    const make = this.groupLists.size > 0 ? (item: Item): Item => this.finished(item, groupsKeep) : null;
    const sheets = mapped(this.now.sheets, (s) => {
      const items = this.sheetLists.get(s.id)?.finished(make, groupsKeep) ?? s.items;
      return items === s.items ? s : { ...s, items };
    });
    this.sheetLists.clear();
    this.groupLists.clear();
    this.put.clear();
    this.hasMovedGroups = false;
    return (this.now = { ...this.now, sheets });
  }

  private finished(item: Item, groupsKeep: boolean): Item {
    if (!isGroup(item)) return item;
    const make = (child: Item): Item => this.finished(child, groupsKeep);
    const items = this.groupLists.get(item.id)?.finished(make, groupsKeep) ?? mapped(item.items, make);
    return items === item.items ? item : { ...item, items };
  }
}
