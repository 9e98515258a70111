'use client';

import type { StoreApi } from 'zustand/vanilla';
import { takeTool } from '../commands/desk';
import { useBench, useBenchState, usePreference } from '../benchContext';
import { keyCaps, keysOf, keyTable, type KeyRow } from '../commands/keys';
import { stageOf } from '../stages/table';
import { toolOf, toolsOf } from '../tools/registry';
import { pointerKind } from '../state/pointerKind';
import type { Hint } from '../tools/tool';
import { touchWords } from '../tools/touchWords';
import { useStored } from '../useStored';

const rowOf = (tool: string): KeyRow | undefined =>
  keyTable.flatMap((g) => g.rows).find((r) => r.command?.do === 'tool' && r.command.tool === tool);

/** The tray: the stage's tools as tiles, the options beside them, and what the hand can do now. */
export function Tray({ hints, onKey }: { hints: StoreApi<Hint[]>; onKey: (key: string) => void }) {
  const bench = useBench();
  const stage = useBenchState((s) => s.stage);
  const tool = useBenchState((s) => s.tool);
  const keys = usePreference('keys');
  const mirrored = usePreference('mirrored');
  const Options = stageOf(stage).options?.[tool] ?? toolOf(tool).options;
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
                {toolOf(id).icon}
                <span>{toolOf(id).label}</span>
              </button>
            );
          })}
        </div>
        <div className="options">{Options && <Options onKey={onKey} />}</div>
      </div>
      <Hints store={hints} />
    </footer>
  );
}

/** They change with every gesture, and nothing else with them. */
function Hints({ store }: { store: StoreApi<Hint[]> }) {
  const hints = useStored(store, (list) => list);
  const isCoarse = useStored(pointerKind, (s) => s.kind === 'coarse');
  return (
    <div className="hints" aria-live="off">
      {hints.map((h) => (
        <span key={h.keys + h.what}>
          <em>{isCoarse ? touchWords(h.keys) : h.keys}</em>
          {h.what}
        </span>
      ))}
    </div>
  );
}
