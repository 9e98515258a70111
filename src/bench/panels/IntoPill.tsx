'use client';

import { useBench, useBenchState } from '../benchContext';

/** Says that new lines come to lie inside of a shape, or behind something, and ends it. */
export function IntoPill() {
  const bench = useBench();
  const into = useBenchState((s) => s.into);
  const behind = useBenchState((s) => s.behind);
  if (into === null && behind === null) return null;
  return (
    <div className="pill into" role="status">
      {into !== null ? 'New lines go inside of the shape.' : 'New lines go behind what was chosen.'}
      <button type="button" className="chip" onClick={() => bench.setState({ into: null, behind: null })}>
        Stop
      </button>
    </div>
  );
}
