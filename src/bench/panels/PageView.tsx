'use client';

import { useEffect, useRef, type RefObject } from 'react';
import { BenchCanvas } from '../canvas/benchCanvas';
import { startKeepingSeen } from '../canvas/lastSeenKeeper';
import { useBench, useBenchState } from '../benchContext';
import { bringIn, showPage } from '../commands/desk';
import type { Hint } from '../tools/tool';
import { DifferencesPill } from './DifferencesPill';
import { FailsAlone } from './FailsAlone';
import { FoldTab } from './FoldTab';
import { HandBar } from './HandBar';
import { IntoPill } from './IntoPill';
import { LooksPill } from './LooksPill';
import { PeekPill } from './PeekPill';
import { SquintFilter } from './SquintFilter';
import { WalkCard } from './WalkCard';
import { WipeHandle } from './WipeHandle';
import { ZoomPill } from './ZoomPill';

type Props = {
  /** Whether what lies over the page has come by now. */
  isAround: boolean;
  canvas: RefObject<BenchCanvas | null>;
  onCanvas: (canvas: BenchCanvas | null) => void;
  onHints: (hints: Hint[]) => void;
  onKey: (key: string) => void;
};

/** The page. Pictures can be dropped anywhere on the bench. */
export function PageView({ isAround, canvas, onCanvas, onHints, onKey }: Props) {
  const bench = useBench();
  const host = useRef<HTMLDivElement>(null);
  const rulers = useBenchState((s) => s.rulers);
  const stage = useBenchState((s) => s.stage);
  const squinting = useBenchState((s) => s.squinting);
  const hasReference = useBenchState((s) => s.drawing.references.some((r) => r.visible));

  useEffect(() => {
    const isNew = bench.getState().view.scale === 1 && bench.getState().view.x === 0 && bench.getState().view.y === 0;
    const made = new BenchCanvas(bench, host.current!, onHints);
    onCanvas(made);
    if (isNew) showPage(bench);
    const endKeeping = startKeepingSeen(bench, host.current!);
    return () => {
      endKeeping();
      onCanvas(null);
      made.dispose();
    };
  }, [bench, onCanvas, onHints]);

  useEffect(() => {
    const over = (e: DragEvent): void => {
      if (e.dataTransfer?.types.includes('Files')) e.preventDefault();
    };
    const drop = (e: DragEvent): void => {
      if (!e.dataTransfer || e.dataTransfer.files.length === 0) return;
      e.preventDefault();
      void bringIn(bench, e.dataTransfer.files);
    };
    window.addEventListener('dragover', over);
    window.addEventListener('drop', drop);
    return () => {
      window.removeEventListener('dragover', over);
      window.removeEventListener('drop', drop);
    };
  }, [bench]);

  return (
    <main className={rulers ? 'page-view ruled' : 'page-view'}>
      <div
        ref={host}
        className={squinting ? 'canvas squinting' : 'canvas'}
        data-testid="page"
        aria-label="Page: arrows move the cross, Space presses"
        role="application"
      />
      {squinting && <SquintFilter />}
      {isAround && (
        <FailsAlone what="What lies over the page" at="over-page">
          <ZoomPill canvas={canvas} />
          {stage !== 'prepare' && <LooksPill />}
          <IntoPill />
          <DifferencesPill />
          <WipeHandle />
          <HandBar onKey={onKey} />
          <WalkCard />
          {hasReference && <PeekPill />}
          <FoldTab side="left" />
          <FoldTab side="right" />
        </FailsAlone>
      )}
    </main>
  );
}
