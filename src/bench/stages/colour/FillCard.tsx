'use client';

import { nanoid } from 'nanoid';
import type { Drawing, Item } from '@/core';
import { findItem } from '@/core/drawing/find';
import { isLine } from '@/core/drawing/items';
import { blends, type Blend } from '@/core/drawing/paint';
import { fillWithGradient, gradientOfItem, setFill, setFillRule, setGradient, setLaying } from '@/core/edits/fills';
import { fillOf } from '@/core/edits/shades';
import { opaqueColourOf } from '@/core/scene/ink';
import { Amount } from '@/ui/Amount';
import { Choice } from '@/ui/Chip';
import { ColourField } from '@/ui/ColourField';
import { PickField } from '@/ui/PickField';
import { useBench, useBenchState, usePreference } from '../../benchContext';
import { paintOf } from '../../commands/colours';
import { takeTool } from '../../commands/desk';
import { chosenIds } from '../../state/chosen';

type Kind = 'none' | 'colour' | 'linear' | 'radial';
const words: Record<Kind, string> = { none: 'none', colour: 'colour', linear: 'along a line', radial: 'in rings' };

/** Where a gradient lies at first, in shares of what it fills. */
const ways = {
  linear: { from: { x: 0.5, y: 0 }, to: { x: 0.5, y: 1 } },
  radial: { from: { x: 0.5, y: 0.5 }, to: { x: 1, y: 0.5 } },
};

const kindOf = (d: Drawing, item: Item): Kind => gradientOfItem(d, item)?.kind ?? (fillOf(item) ? 'colour' : 'none');

/** A value as all have it; null where they differ. */
const shared = <T,>(values: readonly T[]): T | null => (values.every((v) => v === values[0]) ? values[0] : null);

/** The fill of what is chosen: flats, and closed lines. */
export function FillCard() {
  const bench = useBench();
  const reading = useBenchState((s) => s.reading);
  const drawing = useBenchState((s) => s.drawing);
  const lines = useBenchState((s) => s.lines);
  const flats = useBenchState((s) => s.flats);
  const { colour: inHand } = usePreference('pour');
  const items = chosenIds({ lines, flats })
    .slice(0, 500)
    .flatMap((id) => findItem(drawing, id)?.item ?? [])
    .filter((i) => !isLine(i) || i.runs.some((r) => r.closed) || i.style.fill !== null);
  if (items.length === 0) return null;
  const kind = shared(items.map((i) => kindOf(drawing, i)));
  const colour = shared(items.map((i) => opaqueColourOf(drawing, fillOf(i) ?? '#ffffff')));
  const rule = shared(items.map((i) => (isLine(i) ? (i.style.fillRule ?? 'nonzero') : 'evenodd')));
  const used = items.map((i) => i.id);
  const now = (): Drawing => bench.getState().drawing;
  const setKind = (to: Kind): void => {
    if (to === 'none') return void bench.commit(setFill(now(), used, null));
    if (to === 'colour') {
      const before = fillOf(items[0]);
      return void bench.commit(setFill(now(), used, paintOf(bench, before ? opaqueColourOf(now(), before) : inHand)));
    }
    const gradient = items.length === 1 ? gradientOfItem(now(), items[0]) : null;
    bench.commit(
      gradient
        ? setGradient(now(), gradient.id, { kind: to })
        : fillWithGradient(now(), used, { kind: to, ...ways[to] }, nanoid(12)),
    );
    takeTool(bench, 'gradient');
  };
  const kinds: Kind[] = flats.size > 0 ? ['colour', 'linear', 'radial'] : ['none', 'colour', 'linear', 'radial'];
  return (
    <div className="card" role="group" aria-label="Fill">
      <b>Fill</b>
      <Choice
        label="Kind of fill"
        options={kinds.map((value) => ({ value, label: words[value] }))}
        value={kind}
        disabled={reading}
        onChange={setKind}
      />
      {kind === 'colour' && (
        <ColourField
          label="Colour of the fill"
          value={colour}
          disabled={reading}
          onCommit={(c) => bench.commit(setFill(now(), used, paintOf(bench, c)))}
        />
      )}
      {(kind === 'linear' || kind === 'radial') && (
        <p className="quiet">Its ends and stops are moved on the page, with Gradient in hand.</p>
      )}
      {kind !== 'none' && flats.size === 0 && (
        <Choice
          label="Where runs lie in each other"
          options={[
            { value: 'nonzero', label: 'all filled', title: 'Nonzero: what runs the other way round is a hole' },
            { value: 'evenodd', label: 'in turns', title: 'Even-odd: filled, hole, filled' },
          ]}
          value={rule}
          disabled={reading}
          onChange={(v) => bench.commit(setFillRule(now(), used, v === 'evenodd'))}
        />
      )}
      <Amount
        label="Covers"
        value={shared(items.map((i) => Math.round((i.opacity ?? 1) * 100)))}
        min={0}
        max={100}
        step={1}
        disabled={reading}
        onChange={(v, done) => {
          const edit = setLaying(now(), used, { opacity: v / 100 });
          if (done) bench.commit(edit);
          else bench.show(edit);
        }}
      />
      <div className="row">
        <span>Laid over</span>
        <PickField<Blend>
          aria-label="How it is laid over what is below"
          value={shared(items.map((i): Blend => i.blend ?? 'normal')) ?? undefined}
          options={blends.map((value) => ({ value, label: value === 'normal' ? 'plainly' : value }))}
          disabled={reading}
          onChange={(blend) => bench.commit(setLaying(now(), used, { blend }))}
        />
      </div>
    </div>
  );
}
