'use client';

import { Checkbox, Segmented } from 'antd';
import { Fragment } from 'react';
import { pixelsAt } from '@/core/drawing/unit';
import { Amount } from '@/ui/Amount';
import { NumberField } from '@/ui/NumberField';
import { PickField } from '@/ui/PickField';
import { fileFormats, isRaster, type FileFormat } from '@/core/formats/fileFormats';

/** What is chosen of a file. */
export type FileChoices = {
  readonly format: FileFormat;
  readonly scope: 'page' | 'drawing';
  readonly dpi: number;
  readonly quality: number;
  readonly ground: boolean;
  readonly reference: boolean;
};

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

type Props = {
  choices: FileChoices;
  /** The size of what is shown, page units. */
  width: number;
  height: number;
  hasReference: boolean;
  onChange: (choices: FileChoices) => void;
};

/** What kind of file, how much of the drawing, and how fine. Resolution and pixels go together: either sets the other. */
export function FileFields({ choices, width, height, hasReference, onChange }: Props) {
  const set = (sides: Partial<FileChoices>): void => onChange({ ...choices, ...sides });
  const { format, dpi } = choices;
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
      <Segmented<FileChoices['scope']>
        block
        size="small"
        aria-label="What of it"
        value={choices.scope}
        options={[
          { value: 'page', label: 'Whole page' },
          { value: 'drawing', label: 'Just the lines' },
        ]}
        onChange={(scope) => set({ scope })}
      />
      {isRaster(format) && (
        <div className="fields">
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
        </div>
      )}
      {lossy.includes(format) && (
        <Amount
          label="Quality"
          value={choices.quality}
          min={10}
          max={100}
          onChange={(quality, done) => done && set({ quality })}
        />
      )}
      <Checkbox checked={choices.ground} onChange={(e) => set({ ground: e.target.checked })}>
        With the page’s ground
      </Checkbox>
      <Checkbox
        checked={choices.reference && hasReference}
        disabled={!hasReference}
        onChange={(e) => set({ reference: e.target.checked })}
      >
        With the reference
      </Checkbox>
    </>
  );
}
