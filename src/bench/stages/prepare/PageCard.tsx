'use client';

import { Button, Checkbox, Segmented } from 'antd';
import type { Page } from '@/core';
import { pageFromReference, pagePresets, setPage } from '@/core/edits/page';
import { units } from '@/core/drawing/schema';
import { pixelsAt } from '@/core/drawing/unit';
import { PickField } from '@/ui/PickField';
import { ColourField } from '@/ui/ColourField';
import { formatCount, formatNumber } from '@/ui/format';
import { LengthField } from '@/ui/LengthField';
import { NumberField } from '@/ui/NumberField';
import { useBench, useBenchState } from '../../benchContext';
import { workedOn } from '../../tools/pictureTool';
import { Row } from '../shared/LineCard';

const isNear = (a: number, b: number): boolean => Math.abs(a - b) < 0.01;

/** The page: its size by presets or figures, its unit, its resolution, its ground. */
export function PageCard() {
  const bench = useBench();
  const page = useBenchState((s) => s.drawing.page);
  const hasReference = useBenchState((s) => s.drawing.references.length > 0);
  const reading = useBenchState((s) => s.reading);
  const rulers = useBenchState((s) => s.rulers);
  const set = (after: Partial<Page>, label: string): void =>
    void bench.commit(setPage(bench.getState().drawing, after, label));
  const isUpright = page.height > page.width;
  const preset = pagePresets.find(
    (p) => isNear(Math.max(page.width, page.height), p.width) && isNear(Math.min(page.width, page.height), p.height),
  );
  const choose = (name: string): void => {
    const p = pagePresets.find((x) => x.name === name)!;
    const [width, height] = isUpright ? [p.height, p.width] : [p.width, p.height];
    set({ width, height, unit: p.unit }, 'Resize page');
  };
  const fromPicture = (): void => {
    const r = workedOn(bench);
    if (r) bench.commit(pageFromReference(bench.getState().drawing, r));
  };
  return (
    <div className="card" role="group" aria-label="Page">
      <div className="row">
        <b>Page</b>
        <PickField
          aria-label="Unit"
          disabled={reading}
          value={page.unit}
          options={units.map((value) => ({ value, label: value }))}
          onChange={(unit) => set({ unit }, 'Change unit')}
        />
      </div>
      <PickField
        aria-label="Page size"
        disabled={reading}
        value={preset?.name}
        placeholder="own size"
        options={pagePresets.map((p) => ({ value: p.name, label: p.name }))}
        onChange={choose}
      />
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
        <span className="option-label">ground</span>
        <ColourField
          label="Ground of the page"
          value={page.ground ?? '#ffffff'}
          disabled={reading}
          onCommit={(ground) => set({ ground }, 'Change ground')}
        />
      </div>
      <Segmented
        block
        size="small"
        aria-label="Orientation"
        disabled={reading || page.width === page.height}
        value={isUpright ? 'upright' : 'lying'}
        options={[
          { value: 'upright', label: 'Portrait' },
          { value: 'lying', label: 'Landscape' },
        ]}
        onChange={() => set({ width: page.height, height: page.width }, 'Turn page')}
      />
      <Row
        what="In pixels"
        figure={`${formatNumber(pixelsAt(page.width, page.dpi))} x ${formatNumber(pixelsAt(page.height, page.dpi))}`}
      />
      <Checkbox checked={rulers} onChange={(e) => bench.setState({ rulers: e.target.checked })}>
        Rulers: drag a guide out of them
      </Checkbox>
      <Checkbox
        checked={page.grid.visible}
        disabled={reading}
        onChange={(e) => set({ grid: { ...page.grid, visible: e.target.checked } }, 'Show grid')}
      >
        Grid
      </Checkbox>
      {(page.grid.visible || page.grid.snap) && (
        <div className="fields">
          <span className="option-label">every</span>
          <LengthField
            label="Spacing of the grid"
            value={page.grid.spacing}
            unit={page.unit}
            min={0.5}
            max={10_000}
            disabled={reading}
            onCommit={(spacing) => set({ grid: { ...page.grid, spacing } }, 'Space grid')}
          />
        </div>
      )}
      <Checkbox
        checked={page.grid.snap}
        disabled={reading}
        onChange={(e) => set({ grid: { ...page.grid, snap: e.target.checked } }, 'Snap to grid')}
      >
        Snap to the grid
      </Checkbox>
      {page.guides.length > 0 && (
        <Button size="small" disabled={reading} onClick={() => set({ guides: [] }, 'Take guides away')}>
          {`Take ${formatCount(page.guides.length, 'guide')} away`}
        </Button>
      )}
      {hasReference && (
        <Button size="small" disabled={reading} onClick={fromPicture}>
          As large as the picture in print
        </Button>
      )}
    </div>
  );
}
