'use client';

import { Select } from 'antd';
import { useMemo, useState } from 'react';
import type { Point } from '@/core';
import { boxOfLines, transformLines } from '@/core/edits/transform';
import { placeInBox } from '@/core/geometry/frame';
import { moving, scalingAbout, skewingAbout, turningAbout, type Matrix } from '@/core/geometry/matrix';
import { Chip } from '@/ui/Chip';
import { LengthField } from '@/ui/LengthField';
import { NumberField } from '@/ui/NumberField';
import { useBench, useBenchState, usePreference } from '../../benchContext';
import { useTitledButton } from '../../useDeedButton';
import { prefer } from '../../state/preferences';
import { originIn } from '../../tools/frameHand';
import { CopiesRow } from './CopiesRow';

/** The places that a transform can leave where they are: the corners, sides and middle of the box around the lines. */
const anchors = [0, 0.5, 1].flatMap((y) => [0, 0.5, 1].map((x) => ({ x, y })));
const nameOf = ({ x, y }: Point): string =>
  x === 0.5 && y === 0.5
    ? 'middle'
    : [['top', '', 'bottom'][y * 2], ['left', '', 'right'][x * 2]].filter(Boolean).join(' ');

/** The place where the ring on the page was put. */
const OWN = 'place of the ring';

/** The chosen lines by figures: where they are, how large; scaled, turned, slanted and flipped about a place. */
export function TransformCard() {
  const bench = useBench();
  const button = useTitledButton();
  const drawing = useBenchState((s) => s.preview ?? s.drawing);
  const lines = useBenchState((s) => s.lines);
  const reading = useBenchState((s) => s.reading);
  const scaleWidths = usePreference('scaleWidths');
  const keepShape = usePreference('keepShape');
  const origin = useBenchState((s) => s.origin);
  const [amounts, setAmounts] = useState({ scale: 100, turn: 15, slant: 10 });
  // Beyond this the box would be felt while dragging.
  const box = useMemo(
    () => (lines.size > 0 && lines.size <= 2000 ? boxOfLines(drawing, lines) : null),
    [drawing, lines],
  );
  if (!box) return null;
  const { unit } = drawing.page;
  const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
  const at = originIn(origin, box);
  // What lies about a place of the page by itself is told, and moved, by its middle.
  const own = 'share' in origin ? at : placeInBox(box, { x: 0.5, y: 0.5 });
  const where = 'share' in origin ? nameOf(origin.share) : OWN;
  const apply = (m: Matrix, verb: string, widths = false): void =>
    void bench.commit(transformLines(bench.getState().drawing, lines, m, widths && scaleWidths, verb));
  const resize = (axis: 'x' | 'y', to: number): void => {
    const k = to / (axis === 'x' ? width : height);
    apply(scalingAbout(at, axis === 'x' || keepShape ? k : 1, axis === 'y' || keepShape ? k : 1), 'Scale', true);
  };
  const place = (label: string, value: number, set: (v: number) => void, min?: number, off = false) => (
    <label>
      <span className="option-label">{label}</span>
      <LengthField
        label={`${label} of what is chosen`}
        value={value}
        unit={unit}
        min={min}
        disabled={reading || off}
        onCommit={set}
      />
    </label>
  );
  const amount = (key: keyof typeof amounts, of: string, min: number, max: number) => (
    <NumberField
      label={`Amount of ${key}`}
      value={amounts[key]}
      min={min}
      max={max}
      digits={1}
      unit={of}
      disabled={reading}
      onCommit={(v) => setAmounts({ ...amounts, [key]: v })}
    />
  );
  const k = amounts.scale / 100;
  return (
    <div className="card" role="group" aria-label="Place and size">
      <div className="fields four">
        {place('x', own.x, (v) => apply(moving({ x: v - own.x, y: 0 }), 'Move'))}
        {place('y', own.y, (v) => apply(moving({ x: 0, y: v - own.y }), 'Move'))}
        {place('w', width, (v) => resize('x', v), 0.001, width < 1e-9)}
        {place('h', height, (v) => resize('y', v), 0.001, height < 1e-9)}
      </div>
      <div className="transforms">
        {amount('scale', '%', 1, 10_000)}
        {button('scale', 'Scale', () => apply(scalingAbout(at, k, k), 'Scale', true))}
        {amount('turn', '°', -360, 360)}
        {button('turn', 'Turn, clockwise', () => apply(turningAbout(at, amounts.turn), 'Turn'))}
        {amount('slant', '°', -80, 80)}
        <span className="row-of-two">
          {button('slant →', 'Slant upright lines', () => apply(skewingAbout(at, -amounts.slant, 0), 'Slant'))}
          {button('slant ↓', 'Slant level lines', () => apply(skewingAbout(at, 0, amounts.slant), 'Slant'))}
        </span>
      </div>
      <div className="transforming">
        <label title="The ring on the page: drag it there, or choose it here">
          <span className="option-label">about</span>
          <Select
            size="small"
            aria-label="About which place"
            value={where}
            popupMatchSelectWidth={false}
            options={[...anchors.map(nameOf), ...(where === OWN ? [OWN] : [])].map((value) => ({ value }))}
            onChange={(name) => {
              const share = anchors.find((a) => nameOf(a) === name);
              if (share) bench.setState({ origin: { share } });
            }}
          />
        </label>
        <div className="buttons">
          {button('flip across', 'Flip across: left and right', () => apply(scalingAbout(at, -1, 1), 'Flip'))}
          {button('flip down', 'Flip down: top and bottom', () => apply(scalingAbout(at, 1, -1), 'Flip'))}
          <Chip
            on={scaleWidths}
            title="Stroke widths grow with the lines"
            onToggle={(on) => prefer({ scaleWidths: on })}
          >
            widths too
          </Chip>
          <Chip
            on={keepShape}
            title="A width or height that is set takes the other along"
            onToggle={(on) => prefer({ keepShape: on })}
          >
            keep the shape
          </Chip>
        </div>
      </div>
      <CopiesRow at={at} where={where} />
    </div>
  );
}
