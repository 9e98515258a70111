'use client';

import { Button, Checkbox } from 'antd';
import { nanoid } from 'nanoid';
import { useEffect, useRef, useState } from 'react';
import type { PulledShape, Reference } from '@/core';
import { nodeCount } from '@/core/drawing/find';
import { firstStyle } from '@/core/drawing/schema';
import { addFolderOfLines } from '@/core/edits/folders';
import { byColour, linesFromBorders, linesFromShapes } from '@/core/pull/pulledShapes';
import { formatCount, formatNumber } from '@/ui/format';
import { Amount } from '@/ui/Amount';
import { useBench, useBenchState } from '../../benchContext';
import { correct, pulling, sourceOf, type Pulling } from '../../state/corrections';
import { Row } from '../shared/LineCard';
import { FitWithin, PullProgress } from './PullParts';

/** Areas of like colour pulled from a photo, as a start: seen over the page, sorted by hand, then laid on it, a sheet a colour. */
export function PullShapesCard({ reference: r }: { reference: Reference }) {
  const bench = useBench();
  const pulled = useBenchState((s) => s.pulled);
  const reading = useBenchState((s) => s.reading);
  const [colours, setColours] = useState(8);
  const [smallest, setSmallest] = useState(20);
  const [tolerance, setTolerance] = useState(1.5);
  const [bare, setBare] = useState(false);
  const [share, setShare] = useState<number | null>(null);
  const found = useRef<{ shapes: PulledShape[]; size: { width: number; height: number } } | null>(null);
  const job = useRef<Pulling<PulledShape[]> | null>(null);
  useEffect(() => () => job.current?.stop(), []);

  const show = (outlinesOnly: boolean): void => {
    if (!found.current) return;
    const { shapes, size } = found.current;
    const make = outlinesOnly ? linesFromBorders : linesFromShapes;
    const lines = make(shapes, r, size, firstStyle, () => nanoid(10));
    bench.setState({ pulled: { reference: r.id, lines, dropped: new Set() } });
  };
  const pull = async (): Promise<void> => {
    setShare(0);
    try {
      const image = await correct.colour(sourceOf(r), r.corrections);
      const own = pulling.shapes(
        image,
        { colours, smallest: smallest * smallest, tolerance },
        (done) => job.current === own && setShare(done),
      );
      job.current = own;
      found.current = { shapes: await own.result, size: { width: image.width, height: image.height } };
      show(bare);
    } catch (error) {
      if ((error as Error).message !== 'called off')
        bench.tell(`No shapes could be pulled: ${(error as Error).message}`, undefined, 'warning');
    }
    job.current = null;
    setShare(null);
  };
  const kept = pulled?.lines.filter((l) => !pulled.dropped.has(l.id)) ?? [];
  const lay = (): void => {
    const groups = bare ? [{ name: 'Outlines', lines: kept }] : byColour(kept);
    const sheets = groups.map((g) => ({ ...g, id: nanoid(10) }));
    const folder = { id: nanoid(10), name: `Shapes of ${r.name}`.slice(0, 200) };
    bench.commit(addFolderOfLines(bench.getState().drawing, folder, sheets, 'Pull shapes'));
    bench.setState({ pulled: null, sheet: sheets.at(-1)!.id, tool: 'place' });
    const what = bare ? formatCount(kept.length, 'outline') : formatCount(kept.length, 'shape');
    bench.tell(`${what} from the photo, on ${formatCount(sheets.length, 'sheet')} in a folder of their own.`, {
      label: 'Undo',
      run: () => bench.undo(),
    });
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
        <PullProgress share={share} onStop={() => job.current?.stop()} />
      ) : (
        <Button size="small" type={pulled ? 'default' : 'primary'} disabled={reading} onClick={() => void pull()}>
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
