'use client';

import { Button } from 'antd';
import { toolIcons } from '@/ui/toolIcons';
import { takeTool } from '../actions';
import { useBench, useBenchState } from '../benchContext';
import { keyCaps, keyTable } from '../state/keys';
import { StyleOptions } from '../stages/ink/StyleOptions';
import { PenOptions } from '../stages/trace/PenOptions';
import { toolRegistry, toolsOf } from '../tools/registry';
import type { Hint } from '../tools/tool';

const keyOf = (tool: string): string | undefined =>
  keyTable.flatMap((g) => g.rows).find((r) => r.command?.do === 'tool' && r.command.tool === tool)?.keys;

/** The tray: the stage's tools as tiles, the options beside them, and what the hand can do now. */
export function Tray({ hints }: { hints: Hint[] }) {
  const bench = useBench();
  const stage = useBenchState((s) => s.stage);
  const tool = useBenchState((s) => s.tool);
  return (
    <footer className="tray-bar">
      <div className="tray">
        <div className="tools" role="toolbar" aria-label="Tools">
          {toolsOf(stage).map((id) => {
            const key = keyOf(id);
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
                {key && <kbd>{keyCaps(key)[0]}</kbd>}
                {toolIcons[id]}
                <span>{toolRegistry[id].label}</span>
              </button>
            );
          })}
        </div>
        <div className="options">
          {tool === 'pen' ? (
            <PenOptions />
          ) : tool === 'crop' || tool === 'corners' ? (
            <Button type="primary" onClick={() => takeTool(bench, 'place')}>
              Done
            </Button>
          ) : stage === 'ink' ? (
            <StyleOptions />
          ) : null}
        </div>
      </div>
      <div className="hints" aria-live="off">
        {hints.map((h) => (
          <span key={h.keys + h.what}>
            <em>{h.keys}</em>
            {h.what}
          </span>
        ))}
      </div>
    </footer>
  );
}
