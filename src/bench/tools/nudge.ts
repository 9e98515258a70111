import type { Point } from '@/core';
import type { Edit } from '@/core/change/edit';
import { add } from '@/core/geometry/point';
import type { ToolContext } from './tool';

const directions: Record<string, Point> = {
  ArrowLeft: { x: -1, y: 0 },
  ArrowRight: { x: 1, y: 0 },
  ArrowUp: { x: 0, y: -1 },
  ArrowDown: { x: 0, y: 1 },
};

/** How far an arrow key moves what is chosen: one page unit, ten with Shift; null for another key. */
function arrowOffset(key: string, shift: boolean): Point | null {
  const d = directions[key];
  const step = shift ? 10 : 1;
  return d ? { x: d.x * step, y: d.y * step } : null;
}

/** Arrow keys that move what is chosen: however long they are held, it is one change, made when they are let go of. */
export class Nudge {
  private by: Point | null = null;

  constructor(
    private readonly reach: Pick<ToolContext, 'bench' | 'onKeyUp'>,
    /** What would come of it. */
    private readonly edit: (by: Point) => Edit,
    private readonly show: (by: Point) => void = (by) => reach.bench.show(this.edit(by)),
  ) {}

  /** True for a key that it took. */
  key(key: string, shift: boolean): boolean {
    const by = arrowOffset(key, shift);
    if (!by) return false;
    const isFirst = this.by === null;
    this.by = add(this.by ?? { x: 0, y: 0 }, by);
    this.show(this.by);
    if (isFirst) this.reach.onKeyUp(() => this.finish());
    return true;
  }

  /** Makes it so. */
  finish(): void {
    const { by } = this;
    this.by = null;
    if (by) this.reach.bench.commit(this.edit(by));
  }
}
