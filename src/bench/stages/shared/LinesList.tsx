'use client';

import { Tree } from 'antd';
import type { DataNode, TreeProps } from 'antd/es/tree';
import { useMemo, useState } from 'react';
import { moveToPlace } from '@/core/edits/arrange';
import { nameItem } from '@/core/edits/names';
import { findItem, nodeCount, orderOf, placeOf, sheetOf } from '@/core/drawing/find';
import type { Item } from '@/core/drawing/item';
import { groupName, isFlat, isGroup, isLine, linesIn, linesOfItem } from '@/core/drawing/items';
import { formatCount } from '@/ui/format';
import { NameField } from '@/ui/NameField';
import { useBench, useBenchState, useBenchStateLater } from '../../benchContext';
import { chooseWithGroup } from '../../commands/lines';
import { ItemPicture } from './ItemPicture';
import { staysPut } from './staysPut';

/** A title is made when its row is seen: there may be very many. */
type Row = DataNode & { item: Item; order: number; lines: string[]; children?: Row[] };

/**
 * What lies on the sheet in hand in its order, the uppermost first, groups with what is in them; dragged to another place, in
 * or out of a group, chosen by a click, renamed by a double one or F2.
 */
export function LinesList() {
  const bench = useBench();
  const sheet = useBenchStateLater((s) => sheetOf(s.drawing, s.sheet), 'idle');
  const chosen = useBenchStateLater((s) => s.lines, 'idle');
  const reading = useBenchState((s) => s.reading);
  const [renaming, setRenaming] = useState<string | null>(null);
  const rows = useMemo(() => (sheet ? rowsOf(sheet.items, orderOf(linesIn(sheet.items))) : []), [sheet]);
  const selected = useMemo(() => selectedIn(rows, chosen), [rows, chosen]);
  if (!sheet || rows.length === 0) return null;
  const drop: TreeProps<Row>['onDrop'] = ({ dragNode, node, dropPosition, dropToGap }) => {
    const { drawing } = bench.getState();
    const [dragged, onto] = [findItem(drawing, String(dragNode.key)), findItem(drawing, String(node.key))];
    if (!dragged || !onto) return;
    if (!dropToGap && isGroup(onto.item)) {
      // Into a group, on top of what is in it.
      const isIn = dragged.group === onto.item.id;
      const index = onto.item.items.length - (isIn ? 1 : 0);
      return void bench.commit(moveToPlace(drawing, dragged.item.id, { sheet: sheet.id, group: onto.item.id, index }));
    }
    // The list runs from the top down, the sheet from the bottom up.
    const below = dropToGap && dropPosition > Number(node.pos.split('-').at(-1));
    const isOwn = dragged.group === onto.group;
    const index = onto.index + (below ? 0 : 1) - (isOwn && dragged.index < onto.index + (below ? 0 : 1) ? 1 : 0);
    bench.commit(moveToPlace(drawing, dragged.item.id, { ...placeOf(onto), index }));
  };
  return (
    <div className="card lines-list" role="group" aria-label={`Lines on ${sheet.name}`} ref={staysPut}>
      <div className="row">
        <b>Lines here</b>
        <span>top is nearest you</span>
      </div>
      <Tree<Row>
        treeData={rows}
        titleRender={(row) => (
          <span className="item-title" onDoubleClick={() => !reading && setRenaming(row.item.id)}>
            <ItemPicture item={row.item} />
            {renaming === row.item.id ? (
              <NameField
                label="Name"
                value={row.item.name ?? ''}
                onDone={(name) => {
                  setRenaming(null);
                  if (name !== null) bench.commit(nameItem(bench.getState().drawing, row.item.id, name));
                }}
              />
            ) : (
              titleOf(row)
            )}
          </span>
        )}
        height={240}
        itemHeight={28}
        onKeyDown={(e) => {
          // Of what is chosen, the row that is seen to be: with one alone there is no doubt which is meant.
          if (e.key === 'F2' && selected.length === 1 && !reading) setRenaming(selected[0]);
        }}
        blockNode
        motion={false}
        selectable
        multiple
        selectedKeys={selected}
        draggable={reading ? false : { icon: false }}
        onDrop={drop}
        onSelect={(_, { node, nativeEvent }) => {
          bench.setState({ within: [] });
          if (node.children) {
            bench.choose(node.lines);
            return;
          }
          // Chosen by Enter there is no event of the pointer.
          if (node.lines.length === 1) chooseWithGroup(bench, node.lines[0], nativeEvent?.shiftKey ?? false);
        }}
      />
    </div>
  );
}

/** One row an item, with those in a group within its own; the uppermost first. `order` numbers lines from the bottom. */
function rowsOf(items: readonly Item[], order: ReadonlyMap<string, number>): Row[] {
  return items.toReversed().map((item): Row => {
    const lines = linesOfItem(item).map((l) => l.id);
    const row = { key: item.id, item, order: order.get(item.id) ?? 0, lines };
    return isGroup(item) ? { ...row, children: rowsOf(item.items, order) } : { ...row, isLeaf: true };
  });
}

function titleOf({ item, order }: Row): string {
  if (isGroup(item)) return groupName(item);
  if (isFlat(item)) return item.name || (item.open ? 'Flat, not shut' : 'Flat');
  if (!isLine(item)) return item.name || 'Picture';
  const kind = item.runs.every((r) => r.closed) ? 'closed' : 'open';
  const figures = `${kind}, ${formatCount(nodeCount(item), 'node')}`;
  return item.name ? `${item.name} · ${figures}` : `${order + 1} · ${figures}`;
}

/** The rows all of whose lines are chosen. */
const selectedIn = (rows: readonly Row[], chosen: ReadonlySet<string>): string[] =>
  chosen.size === 0
    ? []
    : rows.flatMap((r) => [
        ...(r.lines.length > 0 && r.lines.every((l) => chosen.has(l)) ? [String(r.key)] : []),
        ...selectedIn(r.children ?? [], chosen),
      ]);
