'use client';

import { Select } from 'antd';
import type { Page } from '@/core';
import { setPage } from '@/core/change/pageEdits';
import { units } from '@/core/drawing/schema';
import { pixelsAt } from '@/core/drawing/unit';
import { formatNumber } from '@/ui/format';
import { LengthField } from '@/ui/LengthField';
import { NumberField } from '@/ui/NumberField';
import { useBench, useBenchState } from '../../benchContext';
import { Row } from '../refine/LineCard';

/** The page: its size, the unit it is given in, and its resolution. */
export function PageCard() {
  const bench = useBench();
  const page = useBenchState((s) => s.drawing.page);
  const reading = useBenchState((s) => s.reading);
  const set = (after: Partial<Page>, label: string): void =>
    void bench.commit(setPage(bench.getState().drawing, after, label));
  return (
    <div className="card" role="group" aria-label="Page">
      <div className="row">
        <b>Page</b>
        <Select
          size="small"
          aria-label="Unit"
          disabled={reading}
          value={page.unit}
          options={units.map((value) => ({ value, label: value }))}
          onChange={(unit) => set({ unit }, 'Change unit')}
        />
      </div>
      <div className="fields">
        <span className="option-label">wide</span>
        <LengthField
          label="Page width"
          value={page.width}
          unit={page.unit}
          min={1}
          max={100_000}
          disabled={reading}
          onCommit={(width) => set({ width }, 'Resize page')}
        />
        <span className="option-label">high</span>
        <LengthField
          label="Page height"
          value={page.height}
          unit={page.unit}
          min={1}
          max={100_000}
          disabled={reading}
          onCommit={(height) => set({ height }, 'Resize page')}
        />
        <span className="option-label">dpi</span>
        <NumberField
          label="Resolution of the page"
          value={page.dpi}
          min={1}
          max={2400}
          disabled={reading}
          onCommit={(dpi) => set({ dpi }, 'Change resolution')}
        />
      </div>
      <Row
        what="In pixels"
        figure={`${formatNumber(pixelsAt(page.width, page.dpi))} x ${formatNumber(pixelsAt(page.height, page.dpi))}`}
      />
    </div>
  );
}
