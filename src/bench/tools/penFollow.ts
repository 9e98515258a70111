import type { Cubic, Point, Reference } from '@/core';
import { distance } from '@/core/geometry/point';
import type { Follow } from '../state/follow';
import { prefer, preferences } from '../state/preferences';
import type { BenchState } from '../state/store';
import type { ToolContext } from './tool';

/** The picture that is followed: the chosen one if it lies under the work, or else the topmost that does. */
export function followed({ drawing, reference }: Pick<BenchState, 'drawing' | 'reference'>): Reference | undefined {
  const under = drawing.references.filter((r) => r.visible && !r.beside);
  return under.find((r) => r.id === reference) ?? under.at(-1);
}

/** The pen's side of following the ink: keeps the picture ready, and the curve that the next press would take. */
export class PenFollow {
  private shown: { from: Point; cubics: Cubic[] } | null = null;

  constructor(
    private readonly context: ToolContext,
    private readonly follow: Follow,
  ) {}

  get isOn(): boolean {
    return preferences.getState().follow;
  }

  get isPreparing(): boolean {
    return this.isOn && this.follow.state === 'preparing';
  }

  /** Sees to it that the picture is ready; says why where it cannot be, and switches itself off. */
  keepReady(): void {
    if (!this.isOn) return;
    const picture = followed(this.context.bench.getState());
    if (!picture) {
      prefer({ follow: false });
      this.context.bench.tell('There is no picture under the work that the pen could follow.');
      return;
    }
    const before = this.follow.state;
    this.follow.prepare(picture, picture.target).then(
      () => before !== 'ready' && this.context.repaint(),
      (e: Error) => {
        prefer({ follow: false });
        this.context.bench.tell(`The pen cannot follow this picture: ${e.message}`, undefined, 'warning');
      },
    );
  }

  /** Asks for the curve to where the pen points, and shows it when it comes. */
  point(from: Point, to: Point): void {
    void this.follow.path(from, to).then((cubics) => {
      if (!cubics) return;
      this.shown = { from, cubics };
      this.context.repaint();
    });
  }

  /** The curve that a press would take now, as far as it is known. */
  proposal(from: Point): Cubic[] | null {
    return this.isOn && this.shown && distance(this.shown.from, from) < 1e-6 ? this.shown.cubics : null;
  }

  /** The curve for a press: that to the very place, once it is there. */
  take = (from: Point, to: Point): Promise<Cubic[] | null> => this.follow.path(from, to);

  forget(): void {
    this.shown = null;
  }
}
