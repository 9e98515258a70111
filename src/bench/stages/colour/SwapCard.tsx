'use client';

import { Button } from 'antd';
import { useState } from 'react';
import { flatsIn, linesIn, linesOf } from '@/core/drawing/items';
import { sheetOf } from '@/core/drawing/find';
import { eachPaint, type PaintUse } from '@/core/edits/paints';
import { coloursIn, swapColours, type Pair } from '@/core/edits/swap';
import { opaqueColourOf } from '@/core/scene/ink';
import { Chip, Choice } from '@/ui/Chip';
import { ColourField } from '@/ui/ColourField';
import { formatCount } from '@/ui/format';
import { useBench, useBenchState, useBenchStateLater } from '../../benchContext';
import { paintOf } from '../../commands/colours';
import { chosenIds } from '../../state/chosen';
import type { BenchState } from '../../state/store';

type Scope = 'chosen' | 'sheet' | 'all';
const scopes = [
  { value: 'chosen', label: 'chosen' },
  { value: 'sheet', label: 'this sheet' },
  { value: 'all', label: 'all' },
] as const;

/** So many colours are listed. */
const LISTED = 16;

type Within = Pick<BenchState, 'drawing' | 'lines' | 'flats' | 'sheet'>;

/** The items that a swap is within; null for all. */
function idsWithin({ drawing, lines, flats, sheet }: Within, scope: Scope): ReadonlySet<string> | null {
  if (scope === 'all') return null;
  if (scope === 'chosen') return new Set(chosenIds({ lines, flats }));
  const items = sheetOf(drawing, sheet)?.items ?? [];
  return new Set([...linesIn(items), ...flatsIn(items)].map((i) => i.id));
}

/** Colours swapped for others, many at once; and everything of a colour chosen. */
export function SwapCard() {
  const bench = useBench();
  const drawing = useBenchStateLater((s) => s.drawing);
  const lines = useBenchState((s) => s.lines);
  const flats = useBenchState((s) => s.flats);
  const sheet = useBenchState((s) => s.sheet);
  const reading = useBenchState((s) => s.reading);
  const [asked, setScope] = useState<Scope>('all');
  const [strokes, setStrokes] = useState(true);
  const [fills, setFills] = useState(true);
  const [pairs, setPairs] = useState<ReadonlyMap<string, string>>(new Map());
  const isAny = lines.size + flats.size > 0;
  const scope = asked === 'chosen' && !isAny ? 'all' : asked;
  const uses: PaintUse[] = [...(strokes ? (['stroke'] as const) : []), ...(fills ? (['fill'] as const) : [])];
  const seen = coloursIn(drawing, idsWithin({ drawing, lines, flats, sheet }, scope));
  const list = seen.filter((c) => uses.some((use) => c[use] > 0));
  if (seen.length === 0 && scope === 'all') return null;

  const swap = (wanted: readonly Pair[], within: readonly PaintUse[] = uses): void => {
    const done = bench.commit(
      swapColours(bench.getState().drawing, wanted, { uses: within, ids: idsWithin(bench.getState(), scope) }),
      null,
      'There is nothing to swap on a sheet that is open.',
    );
    if (done) setPairs(new Map());
  };
  const set = pairs.size > 0 ? [...pairs].filter(([from]) => list.some((c) => c.colour === from)) : [];
  const strokesTo = (to: string): void =>
    swap(
      seen.filter((c) => c.stroke > 0 && c.colour !== to).map((c) => ({ from: c.colour, to })),
      ['stroke'],
    );
  const choose = (colour: string): void => {
    const found = new Set<string>();
    const within = idsWithin(bench.getState(), scope);
    const { drawing: d } = bench.getState();
    eachPaint(d, (base, use, id) => {
      if (uses.includes(use) && (!within || within.has(id)) && opaqueColourOf(d, base) === colour) found.add(id);
    });
    const open = d.sheets.filter((s) => s.visible && !s.locked).flatMap((s) => linesOf(s).map((l) => l.id));
    const lines = open.filter((id) => found.has(id));
    bench.choose(lines);
    bench.tell(lines.length > 0 ? `${formatCount(lines.length, 'line')} chosen.` : 'No line has that colour.');
  };
  return (
    <div className="card" role="group" aria-label="Swap colours">
      <b>Swap colours</b>
      <Choice
        label="Within"
        options={scopes.filter((s) => s.value !== 'chosen' || isAny)}
        value={scope}
        onChange={setScope}
      />
      <div className="buttons" role="group" aria-label="What is swapped">
        <Chip on={strokes} onToggle={setStrokes}>
          strokes
        </Chip>
        <Chip on={fills} onToggle={setFills}>
          fills
        </Chip>
      </div>
      <ul className="swap-list">
        {list.slice(0, LISTED).map((c) => (
          <li key={c.colour}>
            <button
              type="button"
              className="sample"
              style={{ background: c.colour }}
              aria-label={`Choose everything in ${c.colour}`}
              title={`Choose everything in ${c.colour}`}
              onClick={() => choose(c.colour)}
            />
            <span className="quiet">{uses.reduce((n, use) => n + c[use], 0)}</span>→
            <ColourField
              label={`Instead of ${c.colour}`}
              value={pairs.get(c.colour) ?? c.colour}
              disabled={reading}
              onCommit={(to) => setPairs(new Map(pairs).set(c.colour, to))}
            />
          </li>
        ))}
      </ul>
      {list.length > LISTED && <span className="quiet">and {list.length - LISTED} more</span>}
      <Button
        size="small"
        type="primary"
        disabled={reading || set.length === 0}
        onClick={() => swap(set.map(([from, to]) => ({ from, to: paintOf(bench, to) })))}
      >
        {set.length > 1 ? `Swap ${set.length} colours` : 'Swap'}
      </Button>
      <div className="row">
        <span>All strokes</span>
        <span className="buttons">
          <Button size="small" disabled={reading} onClick={() => strokesTo('#000000')}>
            black
          </Button>
          <Button size="small" disabled={reading} onClick={() => strokesTo('#ffffff')}>
            white
          </Button>
        </span>
      </div>
    </div>
  );
}
