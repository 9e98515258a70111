'use client';

import { Button, Dropdown } from 'antd';
import { useState } from 'react';
import { alignNodes, averageNodes, reverseLines, spreadNodes } from '@/core/edits/runs';
import { addNodes, dropHandles, giveHandles, straighten, type Spread } from '@/core/edits/segments';
import { removeNodes } from '@/core/edits/nodes';
import { Choice } from '@/ui/Chip';
import { NumberField } from '@/ui/NumberField';
import { useBench, useBenchState } from '../../benchContext';
import { useDeedButton } from '../../useDeedButton';
import * as act from '../../commands/nodes';
import { joinChosen } from '../../commands/lines';

const alignments = [
  { key: 'x least', label: 'to the leftmost' },
  { key: 'x middle', label: 'to the middle, across' },
  { key: 'x most', label: 'to the rightmost' },
  { key: 'y least', label: 'to the highest' },
  { key: 'y middle', label: 'to the middle, down' },
  { key: 'y most', label: 'to the lowest' },
] as const;

/** What can be done with the chosen nodes and the segments between them. */
export function NodeDeeds() {
  const bench = useBench();
  const button = useDeedButton();
  const reading = useBenchState((s) => s.reading);
  const count = useBenchState((s) => s.nodes.size);
  const lines = useBenchState((s) => s.lines.size);
  const isEnd = useBenchState((s) => s.nodes.size === 1 && act.chosenEnd(bench) !== null);
  const ends = useBenchState((s) => (s.nodes.size === 2 ? act.chosenEnds(bench).length : 0));
  const [amounts, setAmounts] = useState({ nodes: 1, turn: 15, scale: 110 });
  const [spread, setSpread] = useState<Spread>('length');
  const drawing = () => bench.getState().drawing;
  const amount = (key: keyof typeof amounts, unit: string, min: number, max: number) => (
    <NumberField
      label={key === 'nodes' ? 'How many nodes on each segment' : `Amount of ${key} for nodes`}
      value={amounts[key]}
      min={min}
      max={max}
      digits={key === 'nodes' ? 0 : 1}
      unit={unit}
      disabled={reading}
      onCommit={(v) => setAmounts({ ...amounts, [key]: v })}
    />
  );
  const none = 'There was nothing to do.';
  return (
    <>
      {count > 0 && (
        <div className="card deeds" role="group" aria-label="What to do with nodes">
          <div className="buttons">
            {button('drop handles', 'Corners without handles', () =>
              act.toNodes(bench, (r) => dropHandles(drawing(), r), none),
            )}
            {button('give back', 'Handles as the line would flow', () =>
              act.toNodes(bench, (r) => giveHandles(drawing(), r), none),
            )}
            {button('remove', 'The shape is kept (Delete)', () => remove(false))}
            {button('leave the handles', 'Remove, and leave the handles of the others (Shift Delete)', () =>
              remove(true),
            )}
          </div>
          <div className="buttons">
            {button('cut', 'Cut the line at this node', () => act.cutChosen(bench), { disabled: count !== 1 })}
            {button('meet line', 'Trim or extend this end to the line it should meet', () => act.meetChosen(bench), {
              disabled: !isEnd,
            })}
            {button('start here', 'The closed line begins at this node', () => act.startHere(bench), {
              disabled: count !== 1,
            })}
          </div>
          {ends === 2 && (
            <div className="buttons">
              {button('join straight', 'The two ends by a straight segment', () =>
                act.joinChosenEnds(bench, 'straight'),
              )}
              {button('merge', 'The two ends as one node, in the middle', () => act.joinChosenEnds(bench, 'merged'))}
            </div>
          )}
          <div className="buttons">
            <Dropdown
              trigger={['click']}
              disabled={reading || count < 2}
              menu={{
                items: [...alignments],
                onClick: ({ key }) => {
                  const [axis, to] = key.split(' ') as ['x' | 'y', 'least' | 'middle' | 'most'];
                  act.toNodes(bench, (r) => alignNodes(drawing(), r, axis, to), 'They are in line already.');
                },
              }}
            >
              <Button size="small">align…</Button>
            </Dropdown>
            {button('spread across', 'Even distances, left to right', () => spreadOut('x'), { disabled: count < 3 })}
            {button('spread down', 'Even distances, top to bottom', () => spreadOut('y'), { disabled: count < 3 })}
            {button(
              'to their middle',
              'All to the mean of their places',
              () => act.toNodes(bench, (r) => averageNodes(drawing(), r), none),
              { disabled: count < 2 },
            )}
          </div>
          {count > 1 && (
            <div className="transforms">
              {amount('turn', '°', -360, 360)}
              {button('turn', 'Turn the nodes and their handles', () =>
                act.transformChosen(bench, { turn: amounts.turn }),
              )}
              {amount('scale', '%', 1, 10_000)}
              {button('scale', 'Scale the nodes and their handles', () =>
                act.transformChosen(bench, { scale: amounts.scale / 100 }),
              )}
            </div>
          )}
        </div>
      )}
      <div className="card deeds" role="group" aria-label="Segments">
        <div className="row">
          <b>{count > 1 ? 'Segments between them' : 'All segments'}</b>
        </div>
        <div className="transforms">
          {amount('nodes', 'nodes', 1, 50)}
          {button('add to each', 'The shape stays as it is', () =>
            act.toSegments(bench, (r) => addNodes(drawing(), r, amounts.nodes, spread)),
          )}
          <span className="option-label">spread by</span>
          <Choice
            label="Spread nodes by"
            value={spread}
            options={[
              { value: 'length', label: 'length' },
              { value: 'curvature', label: 'bend', title: 'More where the line bends more' },
            ]}
            onChange={setSpread}
          />
        </div>
        <div className="buttons">
          {button('straighten', 'Without their handles; bend them again with F', () =>
            act.toSegments(bench, (r) => straighten(drawing(), r), true),
          )}
          {button('reverse', 'The lines run the other way', () => {
            bench.commit(reverseLines(drawing(), bench.getState().lines));
            bench.choose(bench.getState().lines);
          })}
          {lines <= 2 && button(lines === 1 ? 'close' : 'join', 'Join the nearest ends (R)', () => joinChosen(bench))}
        </div>
      </div>
    </>
  );

  function remove(plainly: boolean): void {
    act.toNodes(bench, (r) => removeNodes(drawing(), r, plainly), none);
    bench.choose(bench.getState().lines);
  }

  function spreadOut(axis: 'x' | 'y'): void {
    act.toNodes(bench, (r) => spreadNodes(drawing(), r, axis), 'They are spread already.');
  }
}
