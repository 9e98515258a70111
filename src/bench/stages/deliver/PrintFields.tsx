'use client';

import { Checkbox } from 'antd';
import type { Unit } from '@/core';
import type { Paper } from '@/core/deliver/delivery';
import { pagePresets } from '@/core/edits/page';
import { LengthField } from '@/ui/LengthField';
import { NumberField } from '@/ui/NumberField';
import { PickField } from '@/ui/PickField';
import type { FileFieldsProps } from './FileFields';

const MM = 96 / 25.4;
const NONE = 'none';
const papers = pagePresets.filter((p) => /^(A\d|Letter)/.test(p.name));
const first: Omit<Paper, 'width' | 'height'> = { margin: 12 * MM, title: true, border: true, count: 1 };

/** What a printer needs: colour beyond the cut, marks, a mirror; or paper that it is laid on to be coloured by hand. */
export function PrintFields({ wanted, set, unit }: FileFieldsProps & { unit: Unit }) {
  const { paper } = wanted;
  const chosen = paper && papers.find((p) => Math.abs(p.height - paper.width) < 0.01);
  const setPaper = (some: Partial<Paper>): void => set({ paper: { ...paper!, ...some } });
  const choose = (name: string): void => {
    const p = papers.find((x) => x.name === name);
    set({ paper: p ? { ...first, ...paper, width: p.height, height: p.width } : null });
  };
  return (
    <>
      <Checkbox checked={wanted.mirror} onChange={(e) => set({ mirror: e.target.checked })}>
        Mirrored, for a transfer
      </Checkbox>
      <div className="fields">
        <span className="option-label">paper</span>
        <PickField
          aria-label="Paper"
          value={chosen?.name ?? NONE}
          options={[{ value: NONE, label: 'its own page' }, ...papers.map((p) => ({ value: p.name, label: p.name }))]}
          onChange={choose}
        />
        {paper ? (
          <>
            <span className="option-label">margin</span>
            <LengthField
              label="Margin"
              unit={unit}
              value={paper.margin}
              min={0}
              max={2_000}
              onCommit={(margin) => setPaper({ margin })}
            />
            <span className="option-label">on each</span>
            <NumberField
              label="How many on a paper"
              value={paper.count}
              min={1}
              max={24}
              onCommit={(v) => setPaper({ count: Math.round(v) })}
            />
          </>
        ) : (
          <>
            <span className="option-label">bleed</span>
            <LengthField
              label="Bleed"
              unit={unit}
              value={wanted.bleed}
              min={0}
              max={1_000}
              onCommit={(bleed) => set({ bleed })}
            />
          </>
        )}
      </div>
      {paper ? (
        <>
          <Checkbox checked={paper.title} onChange={(e) => setPaper({ title: e.target.checked })}>
            With its title
          </Checkbox>
          <Checkbox checked={paper.border} onChange={(e) => setPaper({ border: e.target.checked })}>
            With a border
          </Checkbox>
        </>
      ) : (
        <Checkbox checked={wanted.marks} onChange={(e) => set({ marks: e.target.checked })}>
          With crop marks
        </Checkbox>
      )}
    </>
  );
}
