'use client';

import type { NodeKind } from '@/core';
import { changeKind, moveNodes, nodeAt, nodeOfKey } from '@/core/change/nodeEdits';
import { canRound, roundCorners } from '@/core/change/roundEdits';
import { findLine } from '@/core/drawing/find';
import { nodeKinds } from '@/core/drawing/schema';
import { LengthField } from '@/ui/LengthField';
import { kindIcons } from '@/ui/toolIcons';
import { useBench, useBenchState } from '../../benchContext';

/** The chosen nodes: where, and of which kind. */
export function NodeCard() {
  const bench = useBench();
  const drawing = useBenchState((s) => s.preview ?? s.drawing);
  const chosen = useBenchState((s) => s.nodes);
  const reading = useBenchState((s) => s.reading);
  const refs = [...chosen].map(nodeOfKey);
  const nodes = refs.flatMap((r) => nodeAt(drawing, r) ?? []);
  if (nodes.length === 0) return null;
  const kinds = new Set(nodes.map((n) => n.kind));
  const corners = refs.filter((r) => {
    const run = findLine(drawing, r.line)?.line.runs[r.run];
    return run && r.node < run.nodes.length && canRound(run, r.node);
  });
  const radii = new Set(corners.map((r) => nodeAt(drawing, r)?.radius ?? 0));
  const only = nodes.length === 1 ? nodes[0] : null;
  const moveTo = (axis: 'x' | 'y', px: number): void => {
    if (!only) return;
    const by = { x: 0, y: 0, [axis]: px - only.point[axis] };
    bench.commit(moveNodes(bench.getState().drawing, refs, by));
  };
  const setKind = (kind: NodeKind): void => void bench.commit(changeKind(bench.getState().drawing, refs, kind));
  return (
    <div className="card" role="group" aria-label="Nodes">
      <div className="row">
        <b>{only ? 'Node' : `${nodes.length} nodes`}</b>
      </div>
      {only && (
        <div className="fields">
          <span className="option-label">x</span>
          <LengthField
            label="x of the node"
            value={only.point.x}
            unit={drawing.page.unit}
            disabled={reading}
            onCommit={(v) => moveTo('x', v)}
          />
          <span className="option-label">y</span>
          <LengthField
            label="y of the node"
            value={only.point.y}
            unit={drawing.page.unit}
            disabled={reading}
            onCommit={(v) => moveTo('y', v)}
          />
        </div>
      )}
      {corners.length > 0 && (
        <div className="fields">
          <span className="option-label">Rounding</span>
          <LengthField
            label="Radius of the corners"
            value={radii.size === 1 ? [...radii][0] : null}
            unit={drawing.page.unit}
            min={0}
            max={100_000}
            disabled={reading}
            onCommit={(r) => bench.commit(roundCorners(bench.getState().drawing, corners, r))}
          />
        </div>
      )}
      <div className="kinds" role="group" aria-label="Kind of node">
        {nodeKinds.map((kind) => (
          <button
            key={kind}
            type="button"
            disabled={reading}
            className={kinds.has(kind) ? 'on' : ''}
            aria-pressed={kinds.has(kind)}
            onClick={() => setKind(kind)}
          >
            {kindIcons[kind]}
            {kind}
          </button>
        ))}
      </div>
    </div>
  );
}
