'use client';

import { Button } from 'antd';
import type { StoreApi } from 'zustand/vanilla';
import { toolIcons } from '@/ui/toolIcons';
import { takeTool } from '../actions';
import { useBench, useBenchState, usePreference } from '../benchContext';
import { keyCaps, keysOf, keyTable, type KeyRow } from '../state/keys';
import { InkOptions } from '../stages/ink/InkOptions';
import { NodesOptions } from '../stages/refine/NodesOptions';
import { TrialOptions } from '../stages/refine/TrialOptions';
import { PencilOptions } from '../stages/trace/PencilOptions';
import { PenOptions } from '../stages/trace/PenOptions';
import { SelectOptions } from '../stages/trace/SelectOptions';
import { ShapeOptions } from '../stages/trace/ShapeOptions';
import { toolRegistry, toolsOf } from '../tools/registry';
import type { Hint } from '../tools/tool';
import { useStored } from '../useStored';

const rowOf = (tool: string): KeyRow | undefined =>
  keyTable.flatMap((g) => g.rows).find((r) => r.command?.do === 'tool' && r.command.tool === tool);

/** The tray: the stage's tools as tiles, the options beside them, and what the hand can do now. */
export function Tray({ hints, onApply }: { hints: StoreApi<Hint[]>; onApply: () => void }) {
  const bench = useBench();
  const stage = useBenchState((s) => s.stage);
  const tool = useBenchState((s) => s.tool);
  const keys = usePreference('keys');
  const mirrored = usePreference('mirrored');
  return (
    <footer className="tray-bar">
      <div className="tray">
        <div className="tools" role="toolbar" aria-label="Tools">
          {toolsOf(stage).map((id) => {
            const row = rowOf(id);
            const key = row && keysOf(row, { keys, mirrored });
            return (
              <button
                key={id}
                type="button"
                className={id === tool ? 'tool on' : 'tool'}
                aria-pressed={id === tool}
                onClick={(e) => {
                  // A tile that was clicked lets go of the keys: Enter and Space are the hand's again.
                  if (e.detail > 0) e.currentTarget.blur();
                  takeTool(bench, id);
                }}
              >
                {key && <kbd>{keyCaps(key).join(' ').replace('Shift', '⇧')}</kbd>}
                {toolIcons[id]}
                <span>{toolRegistry[id].label}</span>
              </button>
            );
          })}
        </div>
        <div className="options">
          {tool === 'pen' ? (
            <PenOptions />
          ) : tool === 'pencil' ? (
            <PencilOptions />
          ) : tool === 'shape' ? (
            <ShapeOptions />
          ) : tool === 'crop' || tool === 'corners' ? (
            <Button type="primary" onClick={() => takeTool(bench, 'place')}>
              Done
            </Button>
          ) : tool === 'nodes' ? (
            <NodesOptions />
          ) : tool === 'settle' || tool === 'thin' || tool === 'readWidths' ? (
            <TrialOptions kind={tool} onApply={onApply} />
          ) : stage === 'ink' ? (
            <InkOptions />
          ) : tool === 'select' ? (
            <SelectOptions />
          ) : null}
        </div>
      </div>
      <Hints store={hints} />
    </footer>
  );
}

/** They change with every gesture, and nothing else with them. */
function Hints({ store }: { store: StoreApi<Hint[]> }) {
  const hints = useStored(store, (list) => list);
  return (
    <div className="hints" aria-live="off">
      {hints.map((h) => (
        <span key={h.keys + h.what}>
          <em>{h.keys}</em>
          {h.what}
        </span>
      ))}
    </div>
  );
}
