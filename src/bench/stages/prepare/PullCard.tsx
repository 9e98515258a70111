'use client';

import { Button, Checkbox, Segmented } from 'antd';
import { nanoid } from 'nanoid';
import { useEffect, useRef, useState } from 'react';
import type { PulledRun, Reference } from '@/core';
import { linesFromPulled } from '@/core/pull/pulledLines';
import { lineLength } from '@/core/drawing/run';
import { firstStyle } from '@/core/drawing/schema';
import { nodeCount } from '@/core/drawing/find';
import { addFolderOfLines } from '@/core/edits/folders';
import { setCorrection } from '@/core/edits/references';
import { formatCount, formatNumber } from '@/ui/format';
import { Amount } from '@/ui/Amount';
import { useBench, useBenchState } from '../../benchContext';
import { correct, pulling as pullingOf, sourceOf, type Pulling } from '../../state/corrections';
import { Row } from '../shared/LineCard';
import { FitWithin, PullProgress } from './PullParts';

type Mode = 'centre' | 'outline';

/** Lines pulled from the picture's ink, as a start: previewed over the page, sorted by hand, then laid on it. */
export function PullCard({ reference: r }: { reference: Reference }) {
  const bench = useBench();
  const pulled = useBenchState((s) => s.pulled);
  const reading = useBenchState((s) => s.reading);
  const [mode, setMode] = useState<Mode>('centre');
  const [own, setOwn] = useState(false);
  const [widths, setWidths] = useState(true);
  const [level, setLevel] = useState(150);
  const [least, setLeast] = useState(12);
  const [tolerance, setTolerance] = useState(1);
  const [share, setShare] = useState<number | null>(null);
  const pulling = useRef<Pulling<PulledRun[]> | null>(null);
  useEffect(() => () => pulling.current?.stop(), []);

  const preview = (v: number): void =>
    bench.show(
      setCorrection(
        bench.getState().drawing,
        r.id,
        { kind: 'threshold', on: true, method: 'global', level: v, window: 0.025 },
        'Preview of the level',
      ),
    );
  const pull = async (): Promise<void> => {
    setShare(0);
    try {
      const image = await correct.grey(sourceOf(r), r.corrections);
      const size = { width: image.width, height: image.height };
      const options = { mode, tolerance, minimumLength: least, widths, ...(own ? { level } : {}) };
      const job = pullingOf.lines(image, options, (done) => pulling.current === job && setShare(done));
      pulling.current = job;
      const runs: PulledRun[] = await job.result;
      const lines = linesFromPulled(runs, r, size, firstStyle, () => nanoid(10));
      bench.setState({ pulled: { reference: r.id, lines, dropped: new Set() } });
      if (lines.length === 0) bench.tell('No ink was found. Try another level, or correct the picture first.');
    } catch (error) {
      if ((error as Error).message !== 'called off')
        bench.tell(`The ink could not be pulled: ${(error as Error).message}`, undefined, 'warning');
    }
    pulling.current = null;
    setShare(null);
  };
  const dropShorter = (px: number): void => {
    if (!pulled) return;
    const perPixel = r.width / r.pixelWidth;
    const short = pulled.lines.filter((l) => lineLength(l) < px * perPixel).map((l) => l.id);
    bench.setState({ pulled: { ...pulled, dropped: new Set(short) } });
  };
  const lay = (): void => {
    if (!pulled) return;
    const lines = pulled.lines.filter((l) => !pulled.dropped.has(l.id));
    const ids = { folder: nanoid(10), sheet: nanoid(10) };
    const { drawing } = bench.getState();
    bench.commit(
      addFolderOfLines(
        drawing,
        { id: ids.folder, name: `Ink of ${r.name}`.slice(0, 200) },
        [{ id: ids.sheet, name: mode === 'centre' ? 'Strokes' : 'Shapes', lines }],
        'Pull ink',
      ),
    );
    bench.setState({ pulled: null, sheet: ids.sheet, tool: 'place' });
    bench.tell(`${formatCount(lines.length, 'line')} from the ink, in a folder of their own.`, {
      label: 'Undo',
      run: () => bench.undo(),
    });
  };
  const kept = pulled?.lines.filter((l) => !pulled.dropped.has(l.id)) ?? [];
  return (
    <div className="card" role="group" aria-label="Pull ink">
      <div className="row">
        <b>Pull ink</b>
        <span>a start, no more</span>
      </div>
      <Segmented
        block
        size="small"
        aria-label="What is pulled"
        disabled={share !== null}
        value={mode}
        options={[
          { value: 'centre', label: 'Strokes' },
          { value: 'outline', label: 'Shapes' },
        ]}
        onChange={(v) => setMode(v as Mode)}
      />
      {mode === 'centre' && (
        <Checkbox checked={widths} disabled={share !== null} onChange={(e) => setWidths(e.target.checked)}>
          Widths as they are in the ink
        </Checkbox>
      )}
      <Checkbox checked={own} disabled={share !== null} onChange={(e) => setOwn(e.target.checked)}>
        A level of my own
      </Checkbox>
      {own && (
        <Amount
          label="Level"
          value={level}
          min={1}
          max={255}
          disabled={share !== null}
          onChange={(v, done) => {
            if (!done) return preview(v);
            bench.show(null);
            setLevel(v);
          }}
        />
      )}
      <Amount
        label="Smallest, px"
        value={least}
        min={0}
        max={200}
        disabled={share !== null}
        onChange={(v, done) => {
          if (done) setLeast(v);
          dropShorter(v);
        }}
      />
      <FitWithin value={tolerance} min={0.2} max={10} disabled={share !== null} onCommit={setTolerance} />
      {share !== null ? (
        <PullProgress share={share} onStop={() => pulling.current?.stop()} />
      ) : (
        <Button size="small" type={pulled ? 'default' : 'primary'} disabled={reading} onClick={() => void pull()}>
          {pulled ? 'Pull again' : 'Pull lines'}
        </Button>
      )}
      {pulled && (
        <>
          <Row what="Lines kept" figure={`${formatNumber(kept.length)} of ${formatNumber(pulled.lines.length)}`} />
          <Row what="Nodes" figure={formatNumber(kept.reduce((n, l) => n + nodeCount(l), 0))} />
          <Button size="small" type="primary" disabled={reading || kept.length === 0} onClick={lay}>
            Lay them on the page
          </Button>
        </>
      )}
    </div>
  );
}
