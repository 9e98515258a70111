'use client';

import { useBenchState } from '../benchContext';
import { HoldButton, shown } from './HoldButton';

/** Says how the reference and the lines are lifted away, and does it while it is pressed. */
export function PeekPill() {
  const peek = useBenchState((s) => s.peek);
  const lifted = useBenchState((s) => s.lifted);
  return (
    <div className="pill peek">
      Hold{' '}
      <HoldButton label="Lift the reference away" {...shown('peek')}>
        V
      </HoldButton>
      {peek ? 'the reference is lifted away' : 'to lift the reference away,'}{' '}
      <HoldButton label="Lift the lines away" {...shown('lifted')}>
        C
      </HoldButton>
      {lifted ? 'the lines are lifted away' : 'the lines'}
    </div>
  );
}
