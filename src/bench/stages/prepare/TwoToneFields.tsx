'use client';

import type { CorrectionOf } from '@/core/raster/correction';
import { Amount } from '@/ui/Amount';
import { ColourField } from '@/ui/ColourField';

type TwoTone = CorrectionOf<'twoTone'>;
type Props = { c: TwoTone; disabled?: boolean; show: (c: TwoTone) => void; set: (c: TwoTone) => void };

/** A picture's two colours, and what is the one and what the other. */
export const TwoToneFields = ({ c, disabled, show, set }: Props) => (
  <>
    <div className="row">
      <ColourField label="Dark" value={c.dark} disabled={disabled} onCommit={(dark) => set({ ...c, dark })} />
      <ColourField label="Light" value={c.light} disabled={disabled} onCommit={(light) => set({ ...c, light })} />
    </div>
    <Amount
      label="Dark below"
      value={c.level}
      min={1}
      max={255}
      disabled={disabled}
      onChange={(level, done) => (done ? set : show)({ ...c, level })}
    />
  </>
);
