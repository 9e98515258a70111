'use client';

import { useBench, useBenchState } from '../benchContext';

/** Says that new lines come to lie inside of a shape, and ends it. */
export function IntoPill() {
  const bench = useBench();
  const into = useBenchState((s) => s.into);
  if (into === null) return null;
  return (
    <div className="pill into" role="status">
      New lines go inside of the shape.
      <button type="button" className="chip" onClick={() => bench.setState({ into: null })}>
        Stop
      </button>
    </div>
  );
}
