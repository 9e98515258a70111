'use client';

import type { Drawing, NodeKind } from '@/core';
import { changeKind, moveNodes } from '@/core/edits/nodes';
import { nodeAt, nodeOfKey, type NodeRef } from '@/core/drawing/nodeRef';
import { canRound, roundCorners } from '@/core/edits/round';
import { findLine } from '@/core/drawing/find';
import { nodeKinds } from '@/core/drawing/schema';
import { LengthField } from '@/ui/LengthField';
import { kindIcons } from '@/ui/signs';
import { useBench, useBenchState, useBenchStateLater, useFollowingBench } from '../../benchContext';
import { shownDrawing } from '../../state/store';

/** The chosen nodes: where, and of which kind. */
export function NodeCard() {
  const bench = useBench();
  const drawing = useBenchStateLater((s) => (s.nodes.size > 0 ? s.drawing : null));
  const chosen = useBenchState((s) => s.nodes);
  const reading = useBenchState((s) => s.reading);
  const refs = [...chosen].map(nodeOfKey);
  const nodes = drawing ? refs.flatMap((r) => nodeAt(drawing, r) ?? []) : [];
  if (!drawing || nodes.length === 0) return null;
  const kinds = new Set(nodes.map((n) => n.kind));
  const corners = refs.filter((r) => {
    const run = findLine(drawing, r.line)?.line.runs[r.run];
    return run && r.node < run.nodes.length && canRound(run, r.node);
  });
  const setKind = (kind: NodeKind): void => void bench.commit(changeKind(bench.getState().drawing, refs, kind));
  return (
    <div className="card" role="group" aria-label="Nodes">
      <div className="row">
        <b>{nodes.length === 1 ? 'Node' : `${nodes.length} nodes`}</b>
      </div>
      {refs.length === 1 && (
        <div className="fields">
          <Coordinate node={refs[0]} axis="x" />
          <Coordinate node={refs[0]} axis="y" />
        </div>
      )}
      {corners.length > 0 && <Rounding corners={corners} />}
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

/** Where a node lies; follows a moving hand. */
function Coordinate({ node, axis }: { node: NodeRef; axis: 'x' | 'y' }) {
  const bench = useBench();
  const value = useBenchStateLater((s) => nodeAt(s.drawing, node)?.point[axis] ?? null);
  const follows = useFollowingBench((s) => nodeAt(shownDrawing(s), node)?.point[axis] ?? null);
  const unit = useBenchState((s) => s.drawing.page.unit);
  const reading = useBenchState((s) => s.reading);
  const moveTo = (px: number): void => {
    const { drawing } = bench.getState();
    const at = nodeAt(drawing, node)?.point;
    if (at) bench.commit(moveNodes(drawing, [node], { x: 0, y: 0, [axis]: px - at[axis] }));
  };
  return (
    <>
      <span className="option-label">{axis}</span>
      <LengthField
        label={`${axis} of the node`}
        value={value}
        follows={follows}
        unit={unit}
        disabled={reading}
        onCommit={moveTo}
      />
    </>
  );
}

/** The radius that corners are rounded by; follows a moving hand. */
function Rounding({ corners }: { corners: readonly NodeRef[] }) {
  const bench = useBench();
  const radiusIn = (d: Drawing): number | null => {
    const radii = new Set(corners.map((r) => nodeAt(d, r)?.radius ?? 0));
    return radii.size === 1 ? [...radii][0] : null;
  };
  const radius = useBenchState((s) => radiusIn(s.drawing));
  const follows = useFollowingBench((s) => radiusIn(shownDrawing(s)));
  const unit = useBenchState((s) => s.drawing.page.unit);
  const reading = useBenchState((s) => s.reading);
  return (
    <div className="fields">
      <span className="option-label">Rounding</span>
      <LengthField
        label="Radius of the corners"
        value={radius}
        follows={follows}
        unit={unit}
        min={0}
        max={100_000}
        disabled={reading}
        onCommit={(r) => bench.commit(roundCorners(bench.getState().drawing, corners, r))}
      />
    </div>
  );
}
