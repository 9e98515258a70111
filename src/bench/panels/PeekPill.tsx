'use client';

import { useBench, useBenchState } from '../benchContext';

/** Says how the reference and the lines are lifted away, and does it while it is pressed. */
export function PeekPill() {
  const bench = useBench();
  const peek = useBenchState((s) => s.peek);
  const lifted = useBenchState((s) => s.lifted);
  const hold = (what: 'peek' | 'lifted', key: string, label: string) => {
    const set = (on: boolean): void => bench.setState({ [what]: on });
    return (
      <button
        type="button"
        aria-label={label}
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          set(true);
        }}
        onPointerUp={() => set(false)}
        onPointerCancel={() => set(false)}
        onContextMenu={(e) => e.preventDefault()}
      >
        {key}
      </button>
    );
  };
  return (
    <div className="pill peek">
      Hold {hold('peek', 'V', 'Lift the reference away')}
      {peek ? 'the reference is lifted away' : 'to lift the reference away,'}{' '}
      {hold('lifted', 'C', 'Lift the lines away')}
      {lifted ? 'the lines are lifted away' : 'the lines'}
    </div>
  );
}
