'use client';

import { PickField } from '@/ui/PickField';
import { Button, Dropdown } from 'antd';
import { alignLines, spreadLines, type Side } from '@/core/edits/transform';
import { isInGroup } from '@/core/edits/arrange';
import { useBench, useBenchState } from '../../benchContext';
import { chosenSheets } from '../../state/chosen';
import { useDeedButton } from '../../useDeedButton';
import * as act from '../../commands/lines';

const sides: { side: Side; label: string }[] = [
  { side: 'left', label: 'left sides' },
  { side: 'middle', label: 'centred left to right' },
  { side: 'right', label: 'right sides' },
  { side: 'top', label: 'tops' },
  { side: 'centre', label: 'centred top to bottom' },
  { side: 'bottom', label: 'bottoms' },
];

/** Where the chosen lines lie among the others: order, group, sheet, and in line with each other. */
export function ArrangeCard() {
  const bench = useBench();
  const button = useDeedButton();
  const count = useBenchState((s) => s.lines.size);
  const reading = useBenchState((s) => s.reading);
  const sheets = useBenchState((s) => s.drawing.sheets);
  const on = useBenchState((s) => {
    const ids = chosenSheets(s);
    return ids.size === 1 ? [...ids][0] : undefined;
  });
  const grouped = useBenchState((s) => isInGroup(s.drawing, s.lines, s.within));
  if (count === 0) return null;
  const { page } = bench.getState().drawing;
  const wholePage = { minX: 0, minY: 0, maxX: page.width, maxY: page.height };
  const align = (side: Side, toPage: boolean): void => {
    const { drawing, lines, within } = bench.getState();
    bench.commit(alignLines(drawing, lines, side, within, toPage ? wholePage : undefined));
  };
  return (
    <div className="card" role="group" aria-label="Arrange">
      <div className="buttons">
        {button('forward', 'Over the next line (Shift E)', () => act.order(bench, 'forward'))}
        {button('back', 'Under the next line (Shift C)', () => act.order(bench, 'back'))}
        {button('to front', 'Over all lines of the sheet', () => act.order(bench, 'to front'))}
        {button('to back', 'Under all lines of the sheet', () => act.order(bench, 'to back'))}
        {button('draw behind', 'New lines go behind these', () => act.drawBehind(bench))}
      </div>
      <div className="buttons">
        {button('group', 'Choose them as one from now on (Shift G)', () => act.group(bench), { disabled: count < 2 })}
        {button('take apart', 'Take the group apart (Shift T)', () => act.ungroup(bench), { disabled: !grouped })}
        {button('duplicate', 'Shift D', () => act.duplicate(bench))}
        {count <= 2 && button(count === 1 ? 'close' : 'join', 'Join nearest ends (R)', () => act.joinChosen(bench))}
      </div>
      <div className="buttons">
        <Dropdown
          trigger={['click']}
          disabled={reading}
          menu={{
            items: [
              {
                key: 'each',
                type: 'group',
                label: 'with each other',
                children: sides.map((s) => ({ key: `lines ${s.side}`, label: s.label, disabled: count < 2 })),
              },
              {
                key: 'page',
                type: 'group',
                label: 'with the page',
                children: sides.map((s) => ({ key: `page ${s.side}`, label: s.label })),
              },
            ],
            onClick: ({ key }) => align(key.split(' ')[1] as Side, key.startsWith('page')),
          }}
        >
          <Button size="small">align…</Button>
        </Dropdown>
        {button('spread across', 'Equal gaps, left to right', () => spread('x'), { disabled: count < 3 })}
        {button('spread down', 'Equal gaps, top to bottom', () => spread('y'), { disabled: count < 3 })}
      </div>
      <div className="fields">
        <span className="option-label">Sheet</span>
        <PickField
          aria-label="Sheet of the chosen lines"
          disabled={reading}
          value={on ?? null}
          placeholder="several"
          options={sheets.toReversed().map((s) => ({ value: s.id, label: s.name }))}
          onChange={(id: string) => act.toSheet(bench, id)}
        />
      </div>
    </div>
  );

  function spread(axis: 'x' | 'y'): void {
    const { drawing, lines, within } = bench.getState();
    bench.commit(spreadLines(drawing, lines, axis, within));
  }
}
