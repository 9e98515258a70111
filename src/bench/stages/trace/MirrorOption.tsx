'use client';

import { Button } from 'antd';
import type { Point } from '@/core';
import type { Mirror } from '@/core/edits/mirrored';
import { Choice } from '@/ui/Chip';
import { LengthField } from '@/ui/LengthField';
import { NumberField } from '@/ui/NumberField';
import { Slip } from '@/ui/Slip';
import { useBench, useBenchState } from '../../benchContext';

const words: Record<Mirror['kind'] | 'off', string> = {
  off: 'not mirrored',
  across: 'mirrored across',
  down: 'mirrored down',
  round: 'turned round',
};
const MOST = 24;

/** Whether what is drawn is drawn in a mirror, or turned about a point, at the same time. */
export function MirrorOption() {
  const mirror = useBenchState((s) => s.mirror);
  const label = mirror?.kind === 'round' ? `${mirror.count} turned round` : words[mirror?.kind ?? 'off'];
  return (
    <Slip title="Draw in several places at once" placement="top" content={() => <MirrorForm />}>
      <Button
        size="small"
        type={mirror ? 'primary' : 'default'}
        title="What is drawn is drawn on the other side as well"
      >
        {label}…
      </Button>
    </Slip>
  );
}

function MirrorForm() {
  const bench = useBench();
  const mirror = useBenchState((s) => s.mirror);
  const page = useBenchState((s) => s.drawing.page);
  const origin = useBenchState((s) => s.origin);
  const middle = { x: page.width / 2, y: page.height / 2 };
  const set = (next: Mirror | null): void => bench.setState({ mirror: next });
  const choose = (kind: Mirror['kind'] | 'off'): void => {
    const at = mirror?.at ?? middle;
    set(kind === 'off' ? null : kind === 'round' ? { kind, at, count: 6 } : { kind, at });
  };
  const place = (at: Point): void => void (mirror && set({ ...mirror, at }));
  const field = (label: string, axis: 'x' | 'y') =>
    mirror && (
      <label>
        <span className="option-label">{label}</span>
        <LengthField
          label={`${label} of the ${mirror.kind === 'round' ? 'point' : 'axis'}`}
          value={mirror.at[axis]}
          unit={page.unit}
          onCommit={(v) => place({ ...mirror.at, [axis]: v })}
        />
      </label>
    );
  return (
    <div className="mirror-form">
      <Choice
        label="Where what is drawn is drawn as well"
        value={mirror?.kind ?? 'off'}
        options={[
          { value: 'off', label: 'nowhere' },
          { value: 'across', label: 'across', title: 'On the other side of an upright axis' },
          { value: 'down', label: 'down', title: 'On the other side of a level axis' },
          { value: 'round', label: 'round', title: 'Turned about a point' },
        ]}
        onChange={choose}
      />
      {mirror?.kind === 'round' && (
        <label>
          <span className="option-label">so many in all</span>
          <NumberField
            label="How many in all"
            value={mirror.count}
            min={2}
            max={MOST}
            digits={0}
            onCommit={(v) => set({ ...mirror, count: Math.round(v) })}
          />
        </label>
      )}
      {mirror && mirror.kind !== 'down' && field('x', 'x')}
      {mirror && mirror.kind !== 'across' && field('y', 'y')}
      {mirror && (
        <div className="row-of-two">
          <Button size="small" onClick={() => place(middle)}>
            the page’s middle
          </Button>
          {'place' in origin && (
            <Button size="small" title="Where the ring of Select was put" onClick={() => place(origin.place)}>
              where the ring is
            </Button>
          )}
        </div>
      )}
      {mirror && (
        <p className="option-label">
          {mirror.kind === 'round'
            ? 'Drag the bead beside the point to move it.'
            : 'Drag the bead on the axis to move it. A line that ends on the axis is joined with its other half.'}
        </p>
      )}
    </div>
  );
}
