'use client';

import type { CorrectionOf } from '@/core/raster/correction';
import { ColourField } from '@/ui/ColourField';
import { CorrectionAmount, type Setting } from './CorrectionAmount';

/** A picture's two colours, and what is the one and what the other. */
export const TwoToneFields = ({ c, disabled, show, set }: Setting<CorrectionOf<'twoTone'>>) => (
  <>
    <div className="row">
      <ColourField label="Dark" value={c.dark} disabled={disabled} onCommit={(dark) => set({ ...c, dark })} />
      <ColourField label="Light" value={c.light} disabled={disabled} onCommit={(light) => set({ ...c, light })} />
    </div>
    <CorrectionAmount c={c} of="level" label="Dark below" min={1} max={255} disabled={disabled} show={show} set={set} />
  </>
);
