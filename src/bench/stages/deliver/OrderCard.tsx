'use client';

import { Button, Tree } from 'antd';
import type { DataNode, TreeProps } from 'antd/es/tree';
import { useMemo, useState } from 'react';
import { reverseLines } from '@/core/edits/runs';
import { drawnLines, penWays, setOrder } from '@/core/replay/order';
import { formatLength } from '@/ui/format';
import { useBench, useBenchState, useBenchStateLater } from '../../benchContext';
import { orderAsDrawn, orderAsTheyLie, orderByTravel } from '../../commands/replay';
import { ItemPicture } from '../shared/ItemPicture';
import { Row } from '../shared/LineCard';
import type { Line } from '@/core';

type ListRow = DataNode & { line: Line; number: number; part: string };

/** The order in which lines appear: as they lie, as they were drawn, with less travel, or dragged. */
export function OrderCard() {
  const bench = useBench();
  const drawing = useBenchStateLater((s) => s.drawing, 'idle');
  const chosen = useBenchStateLater((s) => s.lines, 'idle');
  const reading = useBenchState((s) => s.reading);
  const [isReading, setReading] = useState(false);
  const lines = useMemo(() => drawnLines(drawing), [drawing]);
  const ways = useMemo(() => penWays(lines), [lines]);
  const rows = useMemo(() => {
    const names = new Map(drawing.sheets.map((s) => [s.id, s.name]));
    return lines.map(({ line, sheet }, i): ListRow => ({
      key: line.id,
      line,
      number: i + 1,
      part: names.get(sheet) ?? '',
      isLeaf: true,
    }));
  }, [drawing, lines]);
  if (rows.length === 0) return <p className="empty">There is no line to be seen yet.</p>;
  const drop: TreeProps<ListRow>['onDrop'] = ({ dragNode, node, dropPosition }) => {
    const ids = drawnLines(bench.getState().drawing).map((x) => x.line.id);
    // All that is chosen goes along with one of it.
    const dragged = chosen.has(String(dragNode.key)) ? ids.filter((id) => chosen.has(id)) : [String(dragNode.key)];
    const below = dropPosition > Number(node.pos.split('-').at(-1));
    const rest = ids.filter((id) => !dragged.includes(id));
    const at = rest.indexOf(String(node.key));
    if (at < 0) return;
    rest.splice(at + (below ? 1 : 0), 0, ...dragged);
    bench.commit(setOrder(bench.getState().drawing, rest, 'Set the order'));
  };
  const asDrawn = (): void => {
    setReading(true);
    void orderAsDrawn(bench).finally(() => setReading(false));
  };
  const { unit } = drawing.page;
  return (
    <div className="card lines-list" role="group" aria-label="Order of lines">
      <div className="row">
        <b>Order of lines</b>
        <span>first on top</span>
      </div>
      <div className="buttons">
        <Button
          size="small"
          disabled={reading}
          onClick={() => orderAsTheyLie(bench)}
          title="From the bottom of the stack to its top"
        >
          as they lie
        </Button>
        <Button size="small" disabled={reading} loading={isReading} onClick={asDrawn} title="As the history tells">
          as drawn
        </Button>
        <Button
          size="small"
          disabled={reading}
          onClick={() => orderByTravel(bench)}
          title="So that the lifted pen goes less far, within each part"
        >
          less travel
        </Button>
      </div>
      <Tree<ListRow>
        treeData={rows}
        titleRender={({ line, number, part }) => (
          <span className="item-title">
            <ItemPicture item={line} />
            {number} · {line.name || part}
          </span>
        )}
        height={200}
        itemHeight={28}
        blockNode
        motion={false}
        multiple
        selectedKeys={[...chosen]}
        draggable={reading ? false : { icon: false }}
        allowDrop={({ dropPosition }) => dropPosition !== 0}
        onDrop={drop}
        onSelect={(keys) => bench.choose(keys.map(String))}
      />
      <Row what="Lines" figure={formatLength(ways.drawn, unit)} />
      <Row what="Pen lifted" figure={formatLength(ways.lifted, unit)} />
      <Button
        size="small"
        disabled={reading || chosen.size === 0}
        onClick={() => bench.commit(reverseLines(bench.getState().drawing, chosen))}
        title="They are drawn from their other end"
      >
        Reverse what is chosen
      </Button>
    </div>
  );
}
