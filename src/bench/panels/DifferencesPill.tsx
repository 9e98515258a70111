'use client';

import { useBench, useBenchState } from '../benchContext';

/** What the marks of two compared states mean, and how often; ends the comparison. */
export function DifferencesPill() {
  const bench = useBench();
  const differences = useBenchState((s) => s.differences);
  if (!differences) return null;
  const { found, label } = differences;
  const parts = [
    { kind: 'added', count: found.added.length },
    { kind: 'gone', count: found.gone.length },
    { kind: 'changed', count: found.changed.length },
  ];
  return (
    <div className="pill into differences" role="status" aria-label="What differs">
      <span>{label}</span>
      {parts.map(({ kind, count }) => (
        <span key={kind} className="difference" data-kind={kind}>
          <i aria-hidden="true" />
          {count} {kind}
        </span>
      ))}
      <button type="button" className="chip" onClick={() => bench.setState({ differences: null })}>
        Done
      </button>
    </div>
  );
}
