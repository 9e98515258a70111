'use client';

import { PickField } from '@/ui/PickField';
import { LengthField } from '@/ui/LengthField';
import { NumberField } from '@/ui/NumberField';
import { useBenchState, usePreference } from '../../benchContext';
import { MirrorOption } from './MirrorOption';
import { preferIn, shapeKinds, type ShapeFigures } from '../../state/preferences';

/** The shape to be drawn and its figures; a click on the page lays one of this size. */
export function ShapeOptions() {
  const shape = usePreference('shape');
  const unit = useBenchState((s) => s.drawing.page.unit);
  const set = (some: Partial<ShapeFigures>): void => preferIn('shape', some);
  const length = (label: string, key: 'width' | 'height' | 'rounding', least: number) => (
    <label className="figure">
      <span className="option-label">{label}</span>
      <LengthField
        label={`${label} of the shape`}
        value={shape[key]}
        unit={unit}
        min={least}
        max={100_000}
        onCommit={(v) => set({ [key]: v })}
      />
    </label>
  );
  const number = (label: string, key: 'sides' | 'from' | 'to', min: number, max: number, of?: string) => (
    <label className="figure">
      <span className="option-label">{label}</span>
      <NumberField label={label} value={shape[key]} min={min} max={max} unit={of} onCommit={(v) => set({ [key]: v })} />
    </label>
  );
  const { kind } = shape;
  const hasCorners = kind === 'rectangle' || kind === 'polygon' || kind === 'star';
  return (
    <>
      <PickField
        aria-label="Kind of shape"
        className="shape-kind"
        value={kind}
        options={shapeKinds.map((k) => ({ value: k, label: k }))}
        onChange={(k) => set({ kind: k })}
      />
      {length(kind === 'straight line' ? 'length' : 'width', 'width', 0.01)}
      {kind !== 'straight line' && length('height', 'height', 0.01)}
      {kind === 'polygon' && number('sides', 'sides', 3, 200)}
      {kind === 'star' && number('points', 'sides', 3, 200)}
      {kind === 'star' && (
        <label className="figure">
          <span className="option-label">depth</span>
          <NumberField
            label="Inner radius of the star"
            value={Math.round(shape.depth * 100)}
            min={1}
            max={100}
            unit="%"
            onCommit={(v) => set({ depth: v / 100 })}
          />
        </label>
      )}
      {hasCorners && length('rounding', 'rounding', 0)}
      {kind === 'arc' && number('from', 'from', -360, 360, '°')}
      {kind === 'arc' && number('to', 'to', -360, 360, '°')}
      <MirrorOption />
    </>
  );
}
