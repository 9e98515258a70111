import { sizeOf } from '../change/bounds';
import { ownersIn, placesIn } from '../drawing/find';
import { boundingLines, flatsIn, heldGroups, linesIn } from '../drawing/items';
import type { Drawing } from '../drawing/schema';

/** What is worked out once for each list of items of a drawing, and handed on where a change leaves it as it was. */
export const remembered = (d: Drawing): unknown =>
  d.sheets.map((sheet) => [
    [...placesIn(sheet.items)],
    new Map(ownersIn(sheet.items)),
    [linesIn, flatsIn, boundingLines, heldGroups].map((of) => of(sheet.items).map((item) => item.id)),
    sizeOf({ sheets: [sheet] }),
  ]);
