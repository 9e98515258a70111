import { keepOwners, keepPlaces, placesIn } from '../drawing/find';
import type { Item } from '../drawing/item';
import { mapped } from '../drawing/items';

/** A list of items while a change is made: copied once it is written to, however many of the change's steps do so. */
export class DraftList {
  private own: Item[] | null = null;
  private shifted = false;
  /** Worked out when first needed after items have come or gone. */
  private places: Map<string, number> | null = null;

  constructor(private readonly before: readonly Item[]) {}

  get items(): readonly Item[] {
    return this.own ?? this.before;
  }

  private get written(): Item[] {
    return (this.own ??= [...this.before]);
  }

  placeOf(id: string): number {
    if (!this.shifted) return placesIn(this.before).get(id) ?? -1;
    this.places ??= new Map(this.items.map((item, i) => [item.id, i]));
    return this.places.get(id) ?? -1;
  }

  replace(index: number, item: Item): void {
    this.written[index] = item;
  }

  insert(index: number, item: Item): void {
    const isLast = index === this.items.length;
    this.shift(isLast);
    if (isLast) {
      this.written.push(item);
      this.places?.set(item.id, index);
    } else this.written.splice(index, 0, item);
  }

  remove(index: number): void {
    const isLast = index === this.items.length - 1;
    this.shift(isLast);
    const [item] = this.written.splice(index, 1);
    if (isLast) this.places?.delete(item.id);
  }

  /** Items come or go: at the end of the list the places of all others stay. */
  private shift(isLast: boolean): void {
    if (!isLast) this.places = null;
    else if (!this.shifted) this.places = new Map(placesIn(this.before));
    this.shifted = true;
  }

  /** All at once: some are taken out, then others put in so that they come to lie at `at`, rising. */
  exchange(gone: ReadonlySet<number>, come: readonly Item[], at: readonly number[]): void {
    const rest = this.items.filter((_, i) => !gone.has(i));
    const next: Item[] = [];
    let [taken, put] = [0, 0];
    while (taken < rest.length || put < come.length)
      next.push(put < come.length && (at[put] === next.length || taken === rest.length) ? come[put++] : rest[taken++]);
    this.own = next;
    this.shift(false);
  }

  /** Whether items have come, gone or changed places. */
  get hasShifted(): boolean {
    return this.shifted;
  }

  /**
   * What the list has come to; `make` puts groups in place that are being changed themselves, if any are, and
   * `groupsKeep` says that these hold what they held.
   */
  finished(make: ((item: Item) => Item) | null, groupsKeep: boolean): readonly Item[] {
    const next = make ? mapped(this.items, make) : this.items;
    if (this.shifted || next === this.before) return next;
    keepPlaces(this.before, next);
    if (groupsKeep) keepOwners(this.before, next);
    return next;
  }
}
