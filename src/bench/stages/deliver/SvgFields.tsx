'use client';

import { Checkbox } from 'antd';
import type { SvgLook } from '@/core/deliver/delivery';
import { NumberField } from '@/ui/NumberField';
import { PickField } from '@/ui/PickField';
import type { FileFieldsProps } from './FileFields';

/** How an SVG is written: none of it changes how it looks. */
export function SvgFields({ wanted, set }: FileFieldsProps) {
  const look = wanted.svg;
  const setLook = (some: Partial<SvgLook>): void => set({ svg: { ...look, ...some } });
  return (
    <>
      <div className="fields">
        <span className="option-label">strokes</span>
        <PickField<SvgLook['strokes']>
          aria-label="Strokes"
          value={look.strokes}
          options={[
            { value: 'live', label: 'as strokes' },
            { value: 'outlines', label: 'as outlines' },
          ]}
          onChange={(strokes) => setLook({ strokes })}
        />
        <span className="option-label">flats</span>
        <PickField<SvgLook['flats']>
          aria-label="Flats"
          value={look.flats}
          options={[
            { value: 'in place', label: 'among the lines' },
            { value: 'apart', label: 'in groups of their own' },
          ]}
          onChange={(flats) => setLook({ flats })}
        />
        <span className="option-label">palette</span>
        <PickField<SvgLook['colours']>
          aria-label="Palette"
          value={look.colours}
          options={[
            { value: 'values', label: 'plain colours' },
            { value: 'classes', label: 'classes' },
            { value: 'properties', label: 'custom properties' },
          ]}
          onChange={(colours) => setLook({ colours })}
        />
        <span className="option-label">decimals</span>
        <NumberField
          label="Decimals"
          value={look.decimals}
          min={0}
          max={6}
          onCommit={(v) => setLook({ decimals: Math.round(v) })}
        />
      </div>
      <Checkbox checked={look.pictures} onChange={(e) => setLook({ pictures: e.target.checked })}>
        With its pictures
      </Checkbox>
      <Checkbox checked={look.metadata} onChange={(e) => setLook({ metadata: e.target.checked })}>
        With titles, and what brings widths back
      </Checkbox>
    </>
  );
}
