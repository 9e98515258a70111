'use client';

import { Button, Checkbox } from 'antd';
import { nanoid } from 'nanoid';
import { useRef, useState } from 'react';
import type { PulledShape, Reference } from '@/core';
import { nodeCount } from '@/core/drawing/find';
import { firstStyle } from '@/core/drawing/schema';
import { byColour, linesFromBorders, linesFromShapes } from '@/core/pull/pulledShapes';
import { formatCount, formatNumber } from '@/ui/format';
import { Amount } from '@/ui/Amount';
import { useBench, useBenchState } from '../../benchContext';
import { layPulled } from '../../commands/layPulled';
import { correct, pulling, sourceOf } from '../../state/corrections';
import { Row } from '../shared/LineCard';
import { FitWithin, PullProgress } from './PullParts';
import { usePulling } from './usePulling';

/** Areas of like colour pulled from a photo, as a start: seen over the page, sorted by hand, then laid on it, a sheet a colour. */
export function PullShapesCard({ reference: r }: { reference: Reference }) {
  const bench = useBench();
  const pulled = useBenchState((s) => s.pulled);
  const reading = useBenchState((s) => s.reading);
  const [colours, setColours] = useState(8);
  const [smallest, setSmallest] = useState(20);
  const [tolerance, setTolerance] = useState(1.5);
  const [bare, setBare] = useState(false);
  const { share, pull, stop } = usePulling<PulledShape[]>('The shapes');
  const found = useRef<{ shapes: PulledShape[]; size: { width: number; height: number } } | null>(null);

  const show = (outlinesOnly: boolean): void => {
    if (!found.current) return;
    const { shapes, size } = found.current;
    const make = outlinesOnly ? linesFromBorders : linesFromShapes;
    const lines = make(shapes, r, size, firstStyle, () => nanoid(10));
    bench.setState({ pulled: { reference: r.id, lines, dropped: new Set() } });
  };
  const pullThem = async (): Promise<void> => {
    let size = { width: 1, height: 1 };
    const shapes = await pull(async (onProgress) => {
      const image = await correct.colour(sourceOf(r), r.corrections);
      size = { width: image.width, height: image.height };
      return pulling.shapes(image, { colours, smallest: smallest * smallest, tolerance }, onProgress);
    });
    if (!shapes) return;
    found.current = { shapes, size };
    show(bare);
  };
  const kept = pulled?.lines.filter((l) => !pulled.dropped.has(l.id)) ?? [];
  const lay = (): void => {
    const groups = bare ? [{ name: 'Outlines', lines: kept }] : byColour(kept);
    const what = formatCount(kept.length, bare ? 'outline' : 'shape');
    const said = `${what} from the photo, on ${formatCount(groups.length, 'sheet')} in a folder of their own.`;
    layPulled(bench, `Shapes of ${r.name}`, groups, 'Pull shapes', said);
  };
  const isBusy = share !== null;
  return (
    <div className="card" role="group" aria-label="Pull shapes">
      <div className="row">
        <b>Pull shapes</b>
        <span>a start, no more</span>
      </div>
      <Amount
        label="Colours"
        value={colours}
        min={2}
        max={24}
        disabled={isBusy}
        onChange={(v, done) => done && setColours(v)}
      />
      <Amount
        label="Smallest, px across"
        value={smallest}
        min={2}
        max={200}
        disabled={isBusy}
        onChange={(v, done) => done && setSmallest(v)}
      />
      <FitWithin value={tolerance} min={0.5} max={20} disabled={isBusy} onCommit={setTolerance} />
      <Checkbox
        checked={bare}
        disabled={isBusy}
        onChange={(e) => {
          setBare(e.target.checked);
          show(e.target.checked);
        }}
      >
        Outlines only
      </Checkbox>
      {isBusy ? (
        <PullProgress share={share} onStop={stop} />
      ) : (
        <Button size="small" type={pulled ? 'default' : 'primary'} disabled={reading} onClick={() => void pullThem()}>
          {pulled ? 'Pull again' : 'Pull shapes'}
        </Button>
      )}
      {pulled && (
        <>
          <Row
            what={bare ? 'Outlines kept' : 'Shapes kept'}
            figure={`${formatNumber(kept.length)} of ${formatNumber(pulled.lines.length)}`}
          />
          {!bare && <Row what="Colours" figure={formatNumber(byColour(kept).length)} />}
          <Row what="Nodes" figure={formatNumber(kept.reduce((n, l) => n + nodeCount(l), 0))} />
          <Button size="small" type="primary" disabled={reading || kept.length === 0} onClick={lay}>
            Lay them on the page
          </Button>
        </>
      )}
    </div>
  );
}
