'use client';

import { Button } from 'antd';
import type { Reference } from '@/core';
import type { CorrectionOf } from '@/core/raster/correction';
import { LEAST_BEND, MOST_BEND } from '@/core/raster/lens';
import { Amount } from '@/ui/Amount';
import { useBench } from '../../benchContext';
import type { Setting } from './CorrectionAmount';

/** The bend that is taken out, told by lines gone along in the picture or set by hand. */
export function LensFields({
  reference: r,
  c,
  disabled,
  show,
  set,
}: Setting<CorrectionOf<'lens'>> & { reference: Reference }) {
  const bench = useBench();
  return (
    <>
      <Button size="small" disabled={disabled} onClick={() => bench.setState({ reference: r.id, tool: 'lens' })}>
        {c.lines.length > 0 ? 'Go along another straight line' : 'Go along a straight line'}
      </Button>
      <Amount
        label="Bulge, %"
        value={-c.bend * 100}
        min={-MOST_BEND * 100}
        max={-LEAST_BEND * 100}
        step={0.1}
        disabled={disabled}
        onChange={(v, done) => (done ? set : show)({ ...c, bend: -v / 100, lines: [] })}
      />
    </>
  );
}
