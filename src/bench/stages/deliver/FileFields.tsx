'use client';

import { Checkbox, Segmented } from 'antd';
import { Fragment } from 'react';
import { pixelsAt } from '@/core/drawing/unit';
import type { Delivery } from '@/core/deliver/delivery';
import { MOST_STEPS, FEWEST_STEPS } from '@/core/colour/tone';
import { Amount } from '@/ui/Amount';
import { NumberField } from '@/ui/NumberField';
import { PickField } from '@/ui/PickField';
import { fileFormats, isRaster, type FileFormat } from '@/core/deliver/fileFormats';

const names: Record<FileFormat, string> = {
  svg: 'SVG: lines that stay lines',
  pdf: 'PDF: for print',
  png: 'PNG: pixels, see-through',
  jpeg: 'JPEG: pixels, small',
  webp: 'WebP: pixels, for the web',
  avif: 'AVIF: pixels, smallest',
  tiff: 'TIFF: pixels, for print',
};
const lossy: readonly FileFormat[] = ['jpeg', 'webp', 'avif'];
const [LEAST_DPI, MOST_DPI] = [1, 2_400];

export type FileFieldsProps = {
  wanted: Delivery;
  set: (some: Partial<Delivery>) => void;
};

type Props = FileFieldsProps & {
  /** The size of what is shown, page units. */
  width: number;
  height: number;
  hasReference: boolean;
  hasFolders: boolean;
  /** How many lines and flats are chosen. */
  chosen: number;
};

/** What kind of file, how much of the drawing, and how fine. Resolution and pixels go together: either sets the other. */
export function FileFields({ wanted, set, width, height, hasReference, hasFolders, chosen }: Props) {
  const { format, dpi } = wanted;
  const sides = [
    ['px wide', 'Width in pixels', width],
    ['px high', 'Height in pixels', height],
  ] as const;
  return (
    <>
      <PickField<FileFormat>
        aria-label="Kind of file"
        value={format}
        options={fileFormats.map((value) => ({ value, label: names[value] }))}
        onChange={(f) => set({ format: f })}
        popupMatchSelectWidth={false}
      />
      <Segmented<Delivery['scope']>
        block
        size="small"
        aria-label="How much of it"
        value={wanted.scope}
        options={[
          { value: 'page', label: 'Page' },
          { value: 'drawing', label: 'Drawing', title: 'Just as much as the drawing takes' },
          { value: 'chosen', label: 'Chosen', disabled: chosen === 0 && wanted.scope !== 'chosen' },
        ]}
        onChange={(scope) => set({ scope })}
      />
      <div className="fields">
        <span className="option-label">shows</span>
        <PickField<Delivery['shows']>
          aria-label="What it shows"
          value={wanted.shows}
          options={[
            { value: 'all', label: 'lines and colours' },
            { value: 'lines', label: 'lines only' },
            { value: 'colours', label: 'colours only' },
            { value: 'squint', label: 'a few greys' },
          ]}
          onChange={(shows) => set({ shows })}
        />
        {wanted.shows === 'squint' && (
          <>
            <span className="option-label">greys</span>
            <NumberField
              label="Greys"
              value={wanted.steps}
              min={FEWEST_STEPS}
              max={MOST_STEPS}
              onCommit={(v) => set({ steps: Math.round(v) })}
            />
          </>
        )}
        <span className="option-label">files</span>
        <PickField<Delivery['each']>
          aria-label="How many files"
          value={wanted.each}
          options={[
            { value: 'all', label: 'one of all' },
            { value: 'sheet', label: 'one a sheet' },
            { value: 'folder', label: 'one a folder', disabled: !hasFolders },
          ]}
          onChange={(each) => set({ each })}
        />
        {isRaster(format) && (
          <>
            <span className="option-label">dpi</span>
            <NumberField
              label="Resolution"
              value={dpi}
              min={LEAST_DPI}
              max={MOST_DPI}
              digits={2}
              onCommit={(v) => set({ dpi: v })}
            />
            {sides.map(([what, label, length]) => (
              <Fragment key={what}>
                <span className="option-label">{what}</span>
                <NumberField
                  label={label}
                  value={pixelsAt(length, dpi)}
                  min={1}
                  max={30_000}
                  onCommit={(v) => set({ dpi: Math.min(MOST_DPI, Math.max(LEAST_DPI, (v * 96) / length)) })}
                />
              </Fragment>
            ))}
          </>
        )}
      </div>
      {lossy.includes(format) && (
        <Amount
          label="Quality"
          value={wanted.quality}
          min={10}
          max={100}
          onChange={(quality, done) => done && set({ quality })}
        />
      )}
      <Checkbox checked={wanted.ground} onChange={(e) => set({ ground: e.target.checked })}>
        With the page’s ground
      </Checkbox>
      <Checkbox
        checked={wanted.reference && hasReference}
        disabled={!hasReference}
        onChange={(e) => set({ reference: e.target.checked })}
      >
        With the reference
      </Checkbox>
    </>
  );
}
