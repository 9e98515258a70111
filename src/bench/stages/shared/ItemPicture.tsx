'use client';

import { memo } from 'react';
import { skeletonBoxOf } from '@/core/drawing/run';
import type { Item } from '@/core/drawing/item';
import { shownFlat } from '@/core/scene/shownFlat';
import { linesOfItem } from '@/core/drawing/items';
import { pathData } from '@/core/formats/pathData';

/** So many lines of a group are enough to know it by. */
const MOST = 120;
const EMPTY = 'M0 0';

/** How an item looks, very small: its lines as hair lines in its own box, perhaps filled. */
export const ItemPicture = memo(function ItemPicture({ item, fill }: { item: Item; fill?: string }) {
  const lines = item.kind === 'flat' ? [shownFlat(item)] : linesOfItem(item).slice(0, MOST);
  if (lines.length === 0) return <span className="item-picture" />;
  const { minX, minY, maxX, maxY } = skeletonBoxOf(lines);
  const side = Math.max(maxX - minX, maxY - minY, 1);
  const [x, y] = [(minX + maxX - side) / 2, (minY + maxY - side) / 2];
  const digits = Math.max(0, 2 - Math.floor(Math.log10(side)));
  return (
    <svg className="item-picture" viewBox={`${x} ${y} ${side} ${side}`} aria-hidden="true">
      <path
        d={lines.map((l) => pathData(l, digits)).join('') || EMPTY}
        fill={fill ?? 'none'}
        stroke="currentColor"
        strokeWidth={1.4}
        strokeLinecap="round"
        vectorEffect="non-scaling-stroke"
      />
    </svg>
  );
});
