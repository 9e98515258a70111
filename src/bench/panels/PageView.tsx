'use client';

import { useEffect, useRef, type RefObject } from 'react';
import { BenchCanvas } from '../canvas/benchCanvas';
import { useBench, useBenchState } from '../benchContext';
import { bringIn, showPage } from '../actions';
import type { Hint } from '../tools/tool';
import { ZoomPill } from './ZoomPill';

/** The page. Pictures can be dropped on it, or pasted anywhere. */
export function PageView({ canvas, onHints }: { canvas: RefObject<BenchCanvas | null>; onHints: (hints: Hint[]) => void }) {
  const bench = useBench();
  const host = useRef<HTMLDivElement>(null);
  const peek = useBenchState((s) => s.peek);
  const hasReference = useBenchState((s) => s.drawing.references.some((r) => r.visible));

  useEffect(() => {
    const isNew = bench.getState().view.scale === 1 && bench.getState().view.x === 0 && bench.getState().view.y === 0;
    const made = new BenchCanvas(bench, host.current!, onHints);
    canvas.current = made;
    if (isNew) showPage(bench);
    host.current!.dataset.ready = 'true';
    return () => {
      canvas.current = null;
      made.dispose();
    };
  }, [bench, canvas, onHints]);

  useEffect(() => {
    const paste = (e: ClipboardEvent): void => {
      if (e.target instanceof HTMLElement && e.target.closest('input, textarea')) return;
      const files = [...(e.clipboardData?.files ?? [])].filter((f) => f.type.startsWith('image/'));
      if (files.length === 0) return;
      e.preventDefault();
      void bringIn(bench, files);
    };
    window.addEventListener('paste', paste);
    return () => window.removeEventListener('paste', paste);
  }, [bench]);

  return (
    <main
      className="page-view"
      onDragOver={(e) => e.dataTransfer.types.includes('Files') && e.preventDefault()}
      onDrop={(e) => {
        if (e.dataTransfer.files.length === 0) return;
        e.preventDefault();
        void bringIn(bench, e.dataTransfer.files);
      }}
    >
      <div ref={host} className="canvas" data-testid="page" aria-label="Page" role="application" />
      <ZoomPill canvas={canvas} />
      {hasReference && <div className="pill peek">{peek ? 'The reference is lifted away' : <>Hold <b>V</b> to lift the reference away</>}</div>}
    </main>
  );
}
