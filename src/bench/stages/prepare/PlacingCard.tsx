'use client';

import { DownloadOutlined, SwapOutlined } from '@ant-design/icons';
import { Button, Checkbox, Segmented, Upload } from 'antd';
import type { Reference } from '@/core';
import { setReference, swapPicture } from '@/core/edits/references';
import { dpiOf, laidOut, shownPixels, sizedAbout } from '@/core/drawing/placement';
import { PickField } from '@/ui/PickField';
import { ColourField } from '@/ui/ColourField';
import { formatNumber } from '@/ui/format';
import { LengthField } from '@/ui/LengthField';
import { NumberField } from '@/ui/NumberField';
import { PICTURE_TYPES, putBeside, takeIn } from '../../commands/desk';
import { useBench, useBenchState } from '../../benchContext';
import { pictureUrl } from '@/workers/pictureUrl';
import { TargetChoice } from '../shared/TargetChoice';

/** Where a reference lies and how it is seen: figures, one-press layouts, flips, blend and tint. */
export function PlacingCard({ reference: r }: { reference: Reference }) {
  const bench = useBench();
  const page = useBenchState((s) => s.drawing.page);
  const reading = useBenchState((s) => s.reading);
  const others = useBenchState((s) => s.drawing.references);
  const fixed = reading || r.locked;
  const pixels = shownPixels(r);
  const set = (after: Parameters<typeof setReference>[2], label: string): void =>
    void bench.commit(setReference(bench.getState().drawing, r.id, after, label));
  const size = (width: number): void => set(sizedAbout(r, width, (width * r.height) / r.width), 'Scale picture');
  const swap = async (file: File): Promise<void> => {
    const taken = await takeIn(bench, file);
    if (taken) bench.commit(swapPicture(bench.getState().drawing, r.id, taken));
  };
  return (
    <div className="card" role="group" aria-label="Placing">
      <div className="row">
        <b>Picture</b>
        {others.length > 1 ? (
          <PickField
            aria-label="Which picture"
            className="which-picture"
            value={r.id}
            popupMatchSelectWidth={false}
            options={others.toReversed().map((x) => ({ value: x.id, label: x.name }))}
            onChange={(reference) => bench.setState({ reference })}
          />
        ) : (
          <span title={r.name}>{r.locked ? 'locked' : 'unlocked'}</span>
        )}
      </div>
      <Segmented
        block
        size="small"
        aria-label="Where it lies"
        disabled={reading}
        value={r.beside ? 'beside' : 'under'}
        options={[
          { value: 'under', label: 'Under work' },
          { value: 'beside', label: 'Beside it' },
        ]}
        onChange={(v) => putBeside(bench, r.id, v === 'beside')}
      />
      <div className="row">
        <span className="option-label">lines go by</span>
        <TargetChoice reference={r} label={`What lines go by on ${r.name}`} />
      </div>
      <div className="fields four">
        {(['x', 'y'] as const).map((axis) => (
          <label key={axis}>
            <span className="option-label">{axis}</span>
            <LengthField
              label={`${axis} of the picture`}
              value={r.at[axis]}
              unit={page.unit}
              disabled={fixed}
              onCommit={(v) => set({ at: { ...r.at, [axis]: v } }, 'Move picture')}
            />
          </label>
        ))}
        <label>
          <span className="option-label">wide</span>
          <LengthField
            label="Width of the picture"
            value={r.width}
            unit={page.unit}
            min={1}
            max={1e6}
            disabled={fixed}
            onCommit={size}
          />
        </label>
        <label>
          <span className="option-label">high</span>
          <LengthField
            label="Height of the picture"
            value={r.height}
            unit={page.unit}
            min={1}
            max={1e6}
            disabled={fixed}
            onCommit={(h) => size((h * r.width) / r.height)}
          />
        </label>
        <label>
          <span className="option-label">turn</span>
          <NumberField
            label="Turn of the picture"
            value={r.turn}
            min={-180}
            max={180}
            digits={2}
            unit="°"
            disabled={fixed}
            onCommit={(turn) => set({ turn }, 'Turn picture')}
          />
        </label>
        <label>
          <span className="option-label">dpi</span>
          <NumberField
            label="Resolution of the picture"
            value={Math.round(dpiOf(r))}
            min={1}
            max={9600}
            disabled={fixed}
            onCommit={(dpi) => size((pixels.width * 96) / dpi)}
          />
        </label>
      </div>
      <div className="buttons" role="group" aria-label="Lay it out">
        {(['fit', 'fill', 'actual'] as const).map((how) => (
          <Button
            key={how}
            size="small"
            disabled={fixed}
            onClick={() => set(laidOut(page, r, how), `${names[how]} picture`)}
          >
            {names[how]}
          </Button>
        ))}
        <Button
          size="small"
          disabled={fixed}
          aria-pressed={r.flipX}
          onClick={() => set({ flipX: !r.flipX }, 'Flip picture')}
        >
          Flip ↔
        </Button>
        <Button
          size="small"
          disabled={fixed}
          aria-pressed={r.flipY}
          onClick={() => set({ flipY: !r.flipY }, 'Flip picture')}
        >
          Flip ↕
        </Button>
      </div>
      <div className="buttons" role="group" aria-label="Align to the page">
        {aligns.map(({ name, at }) => (
          <Button
            key={name}
            size="small"
            disabled={fixed}
            title={`Align to the page: ${name}`}
            onClick={() => set({ at: at(r, page) }, 'Align picture')}
          >
            {name}
          </Button>
        ))}
      </div>
      <div className="fields">
        <span className="option-label">blend</span>
        <PickField
          aria-label="Blend"
          disabled={reading}
          value={r.blend}
          options={['normal', 'multiply', 'screen'].map((value) => ({ value, label: value }))}
          onChange={(blend) => set({ blend: blend as Reference['blend'] }, 'Blend picture')}
        />
        <Checkbox
          checked={r.tint !== null}
          disabled={reading}
          onChange={(e) => set({ tint: e.target.checked ? '#2d5f8c' : null }, 'Tint picture')}
        >
          tint
        </Checkbox>
        {r.tint !== null && (
          <ColourField
            label="Tint of the picture"
            value={r.tint}
            disabled={reading}
            onCommit={(tint) => set({ tint }, 'Tint picture')}
          />
        )}
      </div>
      <div className="row">
        <span>{`${formatNumber(pixels.width)} x ${formatNumber(pixels.height)} px`}</span>
        <span className="row-buttons">
          <Upload
            accept={PICTURE_TYPES}
            showUploadList={false}
            disabled={reading}
            beforeUpload={(f) => (void swap(f), false)}
          >
            <Button
              size="small"
              type="text"
              icon={<SwapOutlined />}
              title="Another picture in this place"
              aria-label={`Swap ${r.name}`}
              disabled={reading}
            />
          </Upload>
          <Button
            size="small"
            type="text"
            icon={<DownloadOutlined />}
            href={pictureUrl(r.picture, 'original')}
            download={r.name}
            title="The file as it came"
            aria-label={`Save the file of ${r.name} as it came`}
          />
        </span>
      </div>
    </div>
  );
}

const names = { fit: 'Fit', fill: 'Fill', actual: 'Actual size' } as const;

type Page = { width: number; height: number };
const aligns: { name: string; at: (r: Reference, page: Page) => Reference['at'] }[] = [
  { name: 'left', at: (r) => ({ ...r.at, x: 0 }) },
  { name: 'middle', at: (r, p) => ({ x: (p.width - r.width) / 2, y: (p.height - r.height) / 2 }) },
  { name: 'right', at: (r, p) => ({ ...r.at, x: p.width - r.width }) },
  { name: 'top', at: (r) => ({ ...r.at, y: 0 }) },
  { name: 'bottom', at: (r, p) => ({ ...r.at, y: p.height - r.height }) },
];
