'use client';

import { Button, Checkbox, Segmented } from 'antd';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import type { PulledRun, Reference } from '@/core';
import { linesFromPulled } from '@/core/pull/pulledLines';
import { lineLength } from '@/core/drawing/run';
import { firstStyle } from '@/core/drawing/schema';
import { nodeCount } from '@/core/drawing/find';
import { setCorrection } from '@/core/edits/references';
import { formatCount, formatNumber } from '@/ui/format';
import { Amount } from '@/ui/Amount';
import { useBench, useBenchState } from '../../benchContext';
import { layPulled } from '../../commands/layPulled';
import { correct, pulling, sourceOf } from '../../state/corrections';
import { Row } from '../shared/LineCard';
import { FitWithin, PullProgress } from './PullParts';
import { usePulling } from './usePulling';

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
  const { share, pull, stop } = usePulling<PulledRun[]>('The ink');

  const preview = (v: number): void =>
    bench.show(
      setCorrection(
        bench.getState().drawing,
        r.id,
        { kind: 'threshold', on: true, method: 'global', level: v, window: 0.025 },
        'Preview of the level',
      ),
    );
  const pullLines = async (): Promise<void> => {
    let size = { width: 1, height: 1 };
    const runs = await pull(async (onProgress) => {
      const image = await correct.grey(sourceOf(r), r.corrections);
      size = { width: image.width, height: image.height };
      const options = { mode, tolerance, minimumLength: least, widths, ...(own ? { level } : {}) };
      return pulling.lines(image, options, onProgress);
    });
    if (!runs) return;
    const lines = linesFromPulled(runs, r, size, firstStyle, () => nanoid(10));
    bench.setState({ pulled: { reference: r.id, lines, dropped: new Set() } });
    if (lines.length === 0) bench.tell('No ink was found. Try another level, or correct the picture first.');
  };
  const dropShorter = (px: number): void => {
    if (!pulled) return;
    const perPixel = r.width / r.pixelWidth;
    const short = pulled.lines.filter((l) => lineLength(l) < px * perPixel).map((l) => l.id);
    bench.setState({ pulled: { ...pulled, dropped: new Set(short) } });
  };
  const kept = pulled?.lines.filter((l) => !pulled.dropped.has(l.id)) ?? [];
  const lay = (): void => {
    const groups = [{ name: mode === 'centre' ? 'Strokes' : 'Shapes', lines: kept }];
    const said = `${formatCount(kept.length, 'line')} from the ink, in a folder of their own.`;
    layPulled(bench, `Ink of ${r.name}`, groups, 'Pull ink', said);
  };
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
        <PullProgress share={share} onStop={stop} />
      ) : (
        <Button size="small" type={pulled ? 'default' : 'primary'} disabled={reading} onClick={() => void pullLines()}>
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
