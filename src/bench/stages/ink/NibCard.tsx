'use client';

import { Button } from 'antd';
import type { Style } from '@/core';
import { styleLines } from '@/core/edits/lines';
import { counted } from '@/core/change/edit';
import { reseedLines } from '@/core/edits/strokes';
import { nibs } from '@/core/ink/nibs';
import type { Nib, NibKind } from '@/core/drawing/nib';
import { Amount } from '@/ui/Amount';
import { formatLength, formatShare } from '@/ui/format';
import { useBench, useBenchState } from '../../benchContext';
import { seenChosen, sharedStyle } from '../../state/chosen';
import { NibSample } from './NibSample';

type Figure = { key: string; label: string; min: number; max: number; step: number; written: (v: number) => string };
const share = (key: string, label: string, min = 0): Figure => ({
  key,
  label,
  min,
  max: 1,
  step: 0.01,
  written: formatShare,
});

/** What can be set of each nib. */
const figures: Record<NibKind, readonly Figure[]> = {
  round: [],
  broad: [
    { key: 'angle', label: 'angle', min: -90, max: 90, step: 1, written: (v) => `${v}°` },
    share('flatness', 'flatness', 0.02),
  ],
  tapered: [share('start', 'start'), share('end', 'end')],
  brush: [share('belly', 'belly'), share('tail', 'tail')],
  dry: [share('dryness', 'dryness')],
};

const kinds = Object.keys(nibs) as NibKind[];

/** Which nib the chosen lines are drawn with, and by how steady a hand. */
export function NibCard() {
  const bench = useBench();
  const count = useBenchState((s) => s.lines.size);
  const known = useBenchState((s) => sharedStyle(seenChosen(s), (x) => JSON.stringify(x.nib ?? nibs.round.plain)));
  const kind = useBenchState((s) => sharedStyle(s, (x) => x.nib?.kind ?? 'round') ?? null);
  const wobble = useBenchState((s) => sharedStyle(seenChosen(s), (x) => x.wobble ?? 0) ?? null);
  const overrun = useBenchState((s) => sharedStyle(seenChosen(s), (x) => x.overrun ?? 0) ?? null);
  const unit = useBenchState((s) => s.drawing.page.unit);
  const reading = useBenchState((s) => s.reading);
  if (count === 0) return null;
  const nib = known ? (JSON.parse(known) as Nib) : null;
  const set = (style: Partial<Style>, what: string, done = true): void => {
    const { drawing, lines } = bench.getState();
    const edit = styleLines(drawing, lines, style, counted(`Set ${what} of`, lines.size, 'line'));
    if (done) bench.commit(edit);
    else bench.show(edit);
  };
  const hasChance = (wobble ?? 1) > 0 || (overrun ?? 1) > 0 || kind === 'dry';
  return (
    <div className="card nib-card" role="group" aria-label="Nib">
      <div className="row">
        <b>Nib</b>
        <span>{kind ? nibs[kind].label : 'mixed'}</span>
      </div>
      <div className="nibs" role="group" aria-label="Kind of nib">
        {kinds.map((k) => (
          <button
            key={k}
            type="button"
            className={k === kind ? 'on' : ''}
            aria-pressed={k === kind}
            disabled={reading}
            title={nibs[k].about}
            onClick={() => set({ nib: nibs[k].plain }, 'nib')}
          >
            <NibSample kind={k} />
            {nibs[k].label}
          </button>
        ))}
      </div>
      {nib &&
        figures[nib.kind].map(({ key, ...f }) => (
          <Amount
            key={`${nib.kind} ${key}`}
            {...f}
            value={(nib as unknown as Record<string, number>)[key]}
            disabled={reading}
            onChange={(v, done) => set({ nib: { ...nib, [key]: v } as Nib }, f.label, done)}
          />
        ))}
      <Amount
        label="wobble"
        value={wobble}
        min={0}
        max={6}
        step={0.1}
        written={(v) => (v === 0 ? 'steady' : formatLength(v, unit, 1))}
        disabled={reading}
        onChange={(v, done) => set({ wobble: v }, 'wobble', done)}
      />
      <Amount
        label="overrun"
        value={overrun}
        min={0}
        max={24}
        step={0.5}
        written={(v) => (v === 0 ? 'none' : formatLength(v, unit, 1))}
        disabled={reading}
        onChange={(v, done) => set({ overrun: v }, 'overrun', done)}
      />
      {hasChance && (
        <div className="buttons">
          <Button
            size="small"
            disabled={reading}
            title="Wobble, overrun and dryness fall out otherwise, each line by itself"
            onClick={() => {
              const { drawing, lines } = bench.getState();
              bench.commit(reseedLines(drawing, [...lines]));
            }}
          >
            by another hand
          </Button>
        </div>
      )}
    </div>
  );
}
