'use client';

import { Button } from 'antd';
import type { ReactNode } from 'react';
import { Chip } from '@/ui/Chip';
import { LengthField } from '@/ui/LengthField';
import { NumberField } from '@/ui/NumberField';
import { useBench, useBenchState, usePreference } from '../../benchContext';
import { prefer, preferIn } from '../../state/preferences';
import type { Trial } from '../../state/store';
import type { OptionsProps } from '../../tools/definition';

/** Settling, thinning out, reading widths: their figures, what would come of it, and the button that makes it so. */
export function TrialOptions({ kind, label, onKey }: OptionsProps & { kind: Trial['kind']; label: string }) {
  const bench = useBench();
  const trial = useBenchState((s) => s.trial);
  const reading = useBenchState((s) => s.reading);
  const Fields = fields[kind];
  return (
    <>
      <Fields />
      <b className="trial" role="status">
        {wordsFor(kind, trial)}
      </b>
      <Button
        type="primary"
        disabled={reading || !trial || trial.busy || (trial.lines === 0 && trial.before === trial.after)}
        onClick={(e) => {
          e.currentTarget.blur();
          onKey('Enter');
        }}
      >
        {label}
      </Button>
      <Button onClick={() => bench.setState({ tool: kind === 'readWidths' ? 'swell' : 'nodes' })}>Leave</Button>
    </>
  );
}

function wordsFor(kind: Trial['kind'], trial: Trial | null): string {
  if (!trial) return 'Choose lines';
  if (trial.failed) return trial.failed;
  if (trial.busy) return 'Working…';
  if (kind === 'thin') return `${trial.before} nodes → ${trial.after}`;
  if (trial.lines === 0) return kind === 'settle' ? 'Nothing would move' : 'No ink beneath';
  const lines = trial.lines === 1 ? 'one line' : `${trial.lines} lines`;
  if (kind === 'readWidths') return `${lines} with the ink’s width`;
  return `${lines} ${trial.lines === 1 ? 'moves' : 'move'}, ${trial.after} nodes as before`;
}

function ReachField() {
  const reach = usePreference('inkReach');
  return (
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
    </>
  );
}

function SettleFields() {
  const strength = usePreference('strength');
  return (
    <>
      <ReachField />
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
  );
}

function ThinFields() {
  const thin = usePreference('thin');
  const unit = useBenchState((s) => s.drawing.page.unit);
  return (
    <>
      <span className="option-label">Within</span>
      <LengthField
        label="Tolerance of thinning out"
        value={thin.tolerance}
        unit={unit}
        min={0.01}
        max={200}
        onCommit={(v) => preferIn('thin', { tolerance: v })}
      />
      <span className="option-label">smooth wobbles of</span>
      <LengthField
        label="Length of wobbles to smooth"
        value={thin.smoothing}
        unit={unit}
        min={0}
        max={500}
        onCommit={(v) => preferIn('thin', { smoothing: v })}
      />
      <Chip
        on={thin.extremes}
        title="A node wherever the line is leftmost, rightmost, highest or lowest"
        onToggle={(on) => preferIn('thin', { extremes: on })}
      >
        nodes at extremes
      </Chip>
    </>
  );
}

function ReadFields() {
  const read = usePreference('read');
  const unit = useBenchState((s) => s.drawing.page.unit);
  const figure = (key: keyof typeof read, words: string, label: string, min: number, max: number) => (
    <>
      <span className="option-label">{words}</span>
      <LengthField
        label={label}
        value={read[key]}
        unit={unit}
        min={min}
        max={max}
        onCommit={(v) => preferIn('read', { [key]: v })}
      />
    </>
  );
  return (
    <>
      <ReachField />
      {figure('smallest', 'from', 'Smallest width', 0, read.largest)}
      {figure('largest', 'to', 'Largest width', read.smallest, 10_000)}
      {figure('smoothing', 'even over', 'Length that widths are evened out over', 0, 2_000)}
    </>
  );
}

const fields: Record<Trial['kind'], () => ReactNode> = {
  settle: SettleFields,
  thin: ThinFields,
  readWidths: ReadFields,
};
