'use client';

import { Tree } from 'antd';
import type { DataNode, TreeProps } from 'antd/es/tree';
import { useMemo } from 'react';
import type { Line } from '@/core';
import { moveToPlace } from '@/core/change/arrangeEdits';
import { nodeCount, sheetOf } from '@/core/drawing/find';
import { formatCount } from '@/ui/format';
import { useBench, useBenchState, useBenchStateLater } from '../../benchContext';
import { chooseWithGroup } from '../../lineActions';

type Row = DataNode & { lines: string[] };

/** The lines of the sheet in hand in their order, the uppermost first; dragged to another place, chosen by a click. */
export function LinesList() {
  const bench = useBench();
  const sheet = useBenchStateLater((s) => sheetOf(s.drawing, s.sheet), 'idle');
  const chosen = useBenchStateLater((s) => s.lines, 'idle');
  const reading = useBenchState((s) => s.reading);
  const rows = useMemo(() => (sheet ? rowsOf(sheet.lines) : []), [sheet]);
  const selected = useMemo(
    () =>
      rows
        .flatMap((r) => [r, ...((r.children ?? []) as Row[])])
        .flatMap((r) => (r.lines.every((l) => chosen.has(l)) ? [r.key] : [])),
    [rows, chosen],
  );
  if (!sheet || rows.length === 0) return null;
  const drop: TreeProps<Row>['onDrop'] = ({ dragNode, node, dropPosition, dropToGap }) => {
    const { drawing } = bench.getState();
    const order = sheet.lines.map((l) => l.id).filter((id) => id !== dragNode.lines[0]);
    // The list runs from the top down, the sheet from the bottom up.
    const below = dropToGap && dropPosition > Number(node.pos.split('-').at(-1));
    const onto = order.indexOf(below ? node.lines[0] : node.lines.at(-1)!);
    if (onto >= 0 && dragNode.lines.length === 1)
      bench.commit(moveToPlace(drawing, dragNode.lines[0], below ? onto : onto + 1));
  };
  return (
    <div className="card lines-list" role="group" aria-label={`Lines on ${sheet.name}`}>
      <div className="row">
        <b>Lines here</b>
        <span>top is nearest you</span>
      </div>
      <Tree<Row>
        treeData={rows}
        height={190}
        itemHeight={24}
        blockNode
        motion={false}
        selectable
        multiple
        selectedKeys={selected.map(String)}
        draggable={reading ? false : { icon: false, nodeDraggable: (n) => (n as Row).lines.length === 1 }}
        onDrop={drop}
        onSelect={(_, { node, nativeEvent }) => {
          bench.setState({ within: [] });
          if (node.lines.length > 1) {
            bench.choose(node.lines);
            return;
          }
          // Chosen by Enter there is no event of the pointer.
          chooseWithGroup(bench, node.lines[0], nativeEvent?.shiftKey ?? false);
        }}
      />
    </div>
  );
}

/** One row a line, and one a group with its lines within; the uppermost first. */
function rowsOf(lines: readonly Line[]): Row[] {
  const rows: Row[] = [];
  const groups = new Map<string, Row>();
  lines.toReversed().forEach((line, back) => {
    const row: Row = {
      key: line.id,
      title: `${lines.length - back} · ${line.runs.every((r) => r.closed) ? 'closed' : 'open'}, ${formatCount(nodeCount(line), 'node')}`,
      lines: [line.id],
      isLeaf: true,
    };
    const group = line.groups?.[0];
    if (!group) return void rows.push(row);
    let parent = groups.get(group);
    if (!parent) {
      parent = { key: `group ${group}`, title: '', lines: [], children: [] };
      groups.set(group, parent);
      rows.push(parent);
    }
    parent.lines.unshift(line.id);
    parent.children!.push(row);
    parent.title = `Group of ${formatCount(parent.lines.length, 'line')}`;
  });
  return rows;
}
