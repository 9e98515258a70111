import type { Drawing, Reference } from '@/core';
import type { Correction, CorrectionKind } from '@/core/raster/correction';
import { usualOrder } from '@/core/raster/correction';
import { placedAfter } from '@/core/drawing/placement';
import type { Bench } from '../state/store';
import { PointedTool } from './pointedTool';
import type { ToolContext } from './tool';

/** The reference that a tool of the Prepare stage works on: the chosen one, or else the topmost that lies under the work. */
export function workedOn(bench: Bench): Reference | undefined {
  const { drawing, reference } = bench.getState();
  const visible = drawing.references.filter((r) => r.visible);
  return visible.find((r) => r.id === reference) ?? visible.findLast((r) => !r.beside) ?? visible.at(-1) ?? undefined;
}

/** The corrections that are done before one of a kind is. */
export function correctionsBefore(r: Reference, kind: CorrectionKind): Correction[] {
  const at = r.corrections.findIndex((c) => c.kind === kind);
  if (at >= 0) return r.corrections.slice(0, at);
  return r.corrections.filter((c) => usualOrder.indexOf(c.kind) < usualOrder.indexOf(kind));
}

/** A reference as it is found by a correction: with what comes before it, placed so as to be seen whole. */
export function beforeCorrection(drawing: Drawing, r: Reference, kind: CorrectionKind): Reference {
  const corrections = correctionsBefore(r, kind);
  return { ...r, ...placedAfter(drawing.page, r, corrections), corrections, dim: Math.min(r.dim, 0.15) };
}

/** The drawing with one reference shown otherwise. */
export const showing = (drawing: Drawing, r: Reference): Drawing => ({
  ...drawing,
  dim: 0,
  references: drawing.references.map((x) => (x.id === r.id ? r : x)),
});

/** What the tools have in common that set a correction on the picture itself, and show it as that correction finds it. */
export abstract class CorrectionTool extends PointedTool {
  constructor(
    context: ToolContext,
    private readonly kind: CorrectionKind,
  ) {
    super(context);
  }

  /** Whether the hand is in the middle of something. */
  protected abstract isHolding(): boolean;
  abstract cancel(): void;

  protected before(): Reference | null {
    const r = workedOn(this.bench);
    return r ? beforeCorrection(this.bench.getState().drawing, r, this.kind) : null;
  }

  /** Escape calls off what the hand holds; else it puts the tool down, as Enter does. */
  key(key: string): boolean {
    if (key !== 'Enter' && key !== 'Escape') return false;
    if (key === 'Escape' && this.isHolding()) this.cancel();
    else this.bench.setState({ tool: 'place' });
    return true;
  }

  finish(): void {
    this.cancel();
  }

  shows(drawing: Drawing): Drawing {
    const r = this.before();
    return r ? showing(drawing, r) : drawing;
  }
}
