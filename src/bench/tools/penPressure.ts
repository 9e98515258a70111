import { applyChange, type Drawing, type Point } from '@/core';
import { nodeShares } from '@/core/ink/carriedMarks';
import { edit as editOf, type Edit } from '@/core/change/edit';
import { setMarks } from '@/core/edits/strokes';
import { findLine } from '@/core/drawing/find';
import type { Mark } from '@/core/drawing/schema';
import { samePoint } from '@/core/geometry/point';
import { answering } from '@/core/ink/pressure';
import { preferences } from '../state/preferences';
import type { HandEvent } from './tool';

/**
 * What a pen's pressure gives a line that is laid node by node: a width mark at each node, from the strongest that the
 * pen was pressed there. A hand without pressure, or with that switched off, leaves the line as wide as its style.
 */
export class PenPressure {
  private readonly at: { point: Point; pressure: number }[] = [];
  private strongest = 0;

  press(e: HandEvent): void {
    this.strongest = 0;
    this.feel(e);
  }

  feel(e: HandEvent): void {
    if (e.kind === 'pen' && preferences.getState().pressure) this.strongest = Math.max(this.strongest, e.pressure);
  }

  /** Another line is begun. */
  forget(): void {
    this.at.length = 0;
  }

  /** The edit that lays a node, with the marks that the line then has. */
  marked(edit: Edit, drawing: Drawing, line: string, node: Point): Edit {
    if (this.strongest > 0) this.at.push({ point: node, pressure: this.strongest });
    if (this.at.length < 2) return edit;
    const after = applyChange(drawing, { id: 'after', ...edit });
    const own = findLine(after, line)?.line;
    if (!own || own.runs.length > 1) return edit;
    const shareAt = answering(preferences.getState().response);
    const [run] = own.runs;
    const shares = nodeShares(run);
    const marks = run.nodes.flatMap((n, i): Mark[] => {
      const known = this.at.findLast((k) => samePoint(k.point, n.point));
      if (!known) return [];
      const half = (shareAt(known.pressure) * own.style.width) / 2;
      return [{ at: Math.min(1, shares[i]), left: half, right: half }];
    });
    if (marks.length < 2) return edit;
    return editOf(edit.label, edit.steps, setMarks(after, new Map([[line, marks]]), edit.label).steps);
  }
}
