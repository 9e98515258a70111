'use client';

import { Button } from 'antd';
import { Chip } from '@/ui/Chip';
import { LengthField } from '@/ui/LengthField';
import { NumberField } from '@/ui/NumberField';
import { useBench, useBenchState, usePreference } from '../../benchContext';
import { prefer } from '../../state/preferences';

/** Settling and thinning out: their figures, what would come of it, and the button that makes it so. */
export function TrialOptions({ kind, onApply }: { kind: 'settle' | 'thin'; onApply: () => void }) {
  const bench = useBench();
  const trial = useBenchState((s) => s.trial);
  const unit = useBenchState((s) => s.drawing.page.unit);
  const reach = usePreference('inkReach');
  const strength = usePreference('strength');
  const thin = usePreference('thin');
  const reading = useBenchState((s) => s.reading);
  const words = !trial
    ? 'Choose lines'
    : trial.failed
      ? trial.failed
      : trial.busy
        ? 'Working…'
        : kind === 'thin'
          ? `${trial.before} nodes → ${trial.after}`
          : trial.lines === 0
            ? 'Nothing would move'
            : `${trial.lines === 1 ? 'one line moves' : `${trial.lines} lines move`}, ${trial.after} nodes as before`;
  return (
    <>
      {kind === 'settle' ? (
        <>
          <span className="option-label">Ink within</span>
          <NumberField
            label="How far the ink may be"
            value={reach}
            min={1}
            max={60}
            digits={1}
            unit="px"
            onCommit={(v) => prefer({ inkReach: v })}
          />
          <span className="option-label">strength</span>
          <NumberField
            label="Strength"
            value={Math.round(strength * 100)}
            min={1}
            max={100}
            unit="%"
            onCommit={(v) => prefer({ strength: v / 100 })}
          />
        </>
      ) : (
        <>
          <span className="option-label">Within</span>
          <LengthField
            label="Tolerance of thinning out"
            value={thin.tolerance}
            unit={unit}
            min={0.01}
            max={200}
            onCommit={(v) => prefer({ thin: { ...thin, tolerance: v } })}
          />
          <span className="option-label">smooth wobbles of</span>
          <LengthField
            label="Length of wobbles to smooth"
            value={thin.smoothing}
            unit={unit}
            min={0}
            max={500}
            onCommit={(v) => prefer({ thin: { ...thin, smoothing: v } })}
          />
          <Chip
            on={thin.extremes}
            title="A node wherever the line is leftmost, rightmost, highest or lowest"
            onToggle={(on) => prefer({ thin: { ...thin, extremes: on } })}
          >
            nodes at extremes
          </Chip>
        </>
      )}
      <b className="trial" role="status">
        {words}
      </b>
      <Button
        type="primary"
        disabled={reading || !trial || trial.busy || (trial.lines === 0 && trial.before === trial.after)}
        onClick={(e) => {
          e.currentTarget.blur();
          onApply();
        }}
      >
        {kind === 'settle' ? 'Settle' : 'Thin out'}
      </Button>
      <Button onClick={() => bench.setState({ tool: 'nodes' })}>Leave</Button>
    </>
  );
}
