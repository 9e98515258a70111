import type { Edit } from '@/core/change/edit';
import { counted } from '@/core/change/edit';
import { reshapeLines } from '@/core/edits/lines';
import { setReadWidths } from '@/core/edits/strokes';
import { findLine, nodeCount } from '@/core/drawing/find';
import type { Reshaped } from '@/workers/checks';
import { paintNodes, paintSkeleton } from '../canvas/marks';
import { checkingOf } from '../state/checkingOf';
import { preferences } from '../state/preferences';
import { linesToMark, shownDrawing, type Trial } from '../state/store';
import type { ToolId } from '../tools/registry';
import type { View } from '../state/view';
import { LineTool } from './lineTool';
import { gripFor, LINE_GRIP, type HandEvent, type Hint, type PointerShape, type ToolContext, type Tool } from './tool';

/** So long after the last of several changes to the figures a trial is made anew. */
const WAIT_MS = 60;
/** Nodes are marked on so many lines at most. */
const MARKED = 60;

/**
 * Settling and thinning out: what would become of the chosen lines is shown at once, and again when the figures or the
 * choice change; Enter makes it so.
 */
export class TrialTool extends LineTool<never> implements Tool {
  private stop: (() => void)[] = [];
  private edit: Edit | null = null;
  private asked = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    context: ToolContext,
    private readonly kind: Trial['kind'],
  ) {
    super(context);
  }

  begin(): void {
    this.stop = [
      this.bench.subscribe((s, before) => {
        if (s.lines !== before.lines || s.nodes !== before.nodes || s.drawing !== before.drawing) this.later();
      }),
      preferences.subscribe((p, before) => {
        if ((['inkReach', 'strength', 'thin', 'read'] as const).some((k) => p[k] !== before[k])) this.later();
      }),
    ];
    this.later(0);
  }

  finish(): void {
    this.stop.forEach((f) => f());
    this.stop = [];
    this.drop();
  }

  private drop(): void {
    clearTimeout(this.timer);
    this.asked++;
    this.edit = null;
    this.bench.setState({ trial: null });
    this.bench.show(null);
  }

  private later(ms = WAIT_MS): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.make(), ms);
  }

  private async make(): Promise<void> {
    const ask = ++this.asked;
    const { drawing, lines, nodes, reading } = this.bench.getState();
    const ids = [...lines];
    const before = ids.reduce((n, id) => n + (findLine(drawing, id) ? nodeCount(findLine(drawing, id)!.line) : 0), 0);
    if (ids.length === 0 || reading) return this.drop();
    const trial: Trial = { kind: this.kind, busy: true, lines: 0, before, after: before, failed: null };
    this.bench.setState({ trial });
    try {
      const { edit, count, more } = await this.tried(ids, [...nodes]);
      if (ask !== this.asked) return;
      this.edit = edit;
      this.bench.show(edit);
      this.bench.setState({ trial: { ...trial, busy: false, lines: count, after: before + more } });
    } catch (error) {
      if (ask !== this.asked) return;
      const failed = error instanceof Error ? error.message : String(error);
      this.bench.setState({ trial: { ...trial, busy: false, failed } });
    }
    this.context.repaint();
  }

  /** What would become of the lines, of how many, and how many nodes more there would be. */
  private async tried(ids: string[], nodes: string[]): Promise<{ edit: Edit | null; count: number; more: number }> {
    const checking = checkingOf(this.bench);
    if (!checking) return { edit: null, count: 0, more: 0 };
    const { inkReach, strength, thin, read } = preferences.getState();
    if (this.kind === 'readWidths') {
      const found = await checking.ask.readWidths(ids, { ...read, reach: inkReach });
      const marks = new Map(found.map((f) => [f.id, f.marks]));
      const label = counted('Read the widths of', marks.size, 'line');
      return { edit: setReadWidths(this.bench.getState().drawing, marks, label), count: marks.size, more: 0 };
    }
    const isSettling = this.kind === 'settle';
    const found = await (isSettling
      ? checking.ask.settle(ids, nodes, { reach: inkReach, strength })
      : checking.ask.thin(ids, thin));
    const { drawing } = this.bench.getState();
    const runs = new Map(found.map((f) => [f.id, f.runs]));
    const edit = reshapeLines(drawing, runs, counted(isSettling ? 'Settle' : 'Thin out', runs.size, 'line'));
    const more = found.reduce((n, f) => n + nodesIn(f) - nodeCount(findLine(drawing, f.id)!.line), 0);
    return { edit, count: runs.size, more };
  }

  /** Where the hand goes on afterwards. */
  private get next(): ToolId {
    return this.kind === 'readWidths' ? 'swell' : 'nodes';
  }

  /** Makes what is shown so, as one change. */
  apply(): void {
    const { trial, lines } = this.bench.getState();
    if (!trial || trial.busy) return;
    const nothing = nothingComes[trial.kind];
    if (!this.edit) return this.bench.tell(nothing);
    if (!this.bench.commit(this.edit, null, nothing)) return;
    this.bench.choose(lines);
    this.context.takeTool(this.next);
  }

  press(e: HandEvent): void {
    const s = this.bench.getState();
    const hit = this.context.picking.under(s.drawing, e.page, gripFor(e, LINE_GRIP) * this.context.unit());
    const id = hit?.line.id;
    if (!id) return e.more ? undefined : this.bench.choose([]);
    if (!e.more) return this.bench.choose([id]);
    const lines = new Set(s.lines);
    if (!lines.delete(id)) lines.add(id);
    this.bench.choose(lines);
  }

  move(e: HandEvent): void {
    this.at = e;
  }

  release(): void {}

  key(key: string): boolean {
    if (key === 'Enter') this.apply();
    else if (key === 'Escape') this.context.takeTool(this.next);
    else return false;
    return true;
  }

  override cancel(): void {
    this.context.repaint();
  }

  pointer(): PointerShape {
    if (!this.at) return 'arrow';
    const reach = gripFor(this.at, LINE_GRIP) * this.context.unit();
    return this.context.picking.under(this.bench.getState().drawing, this.at.page, reach) ? 'over line' : 'arrow';
  }

  paint(ctx: CanvasRenderingContext2D, view: View): void {
    const s = this.bench.getState();
    const shown = shownDrawing(s);
    for (const id of linesToMark(s)) {
      const found = findLine(shown, id);
      const was = s.preview && findLine(s.drawing, id);
      if (was && found && was.line !== found.line) paintSkeleton(ctx, view, was.line, 'rgba(39,36,29,0.4)', 1);
      if (!found) continue;
      paintSkeleton(ctx, view, found.line, found.sheet.tag, 1.6);
      if (s.lines.size <= MARKED && this.kind !== 'readWidths') paintNodes(ctx, view, found.line, found.sheet.tag);
    }
  }

  hints(): Hint[] {
    const { lines, trial } = this.bench.getState();
    if (lines.size === 0)
      return [
        { keys: 'click a line', what: asks[this.kind] },
        { keys: 'Ctrl A', what: 'all lines' },
      ];
    return [
      ...(trial?.busy ? [] : [{ keys: 'Enter', what: 'make it so' }]),
      { keys: 'hold X', what: 'see it as it was' },
      { keys: 'Shift click', what: 'another line too' },
      { keys: 'Escape', what: 'leave it as it was' },
    ];
  }
}

const nothingComes: Record<Trial['kind'], string> = {
  settle: 'Nothing would move.',
  thin: 'No node can go within this tolerance.',
  readWidths: 'There is no ink beneath what is chosen.',
};
const asks: Record<Trial['kind'], string> = {
  settle: 'settle it onto the ink',
  thin: 'thin out its nodes',
  readWidths: 'read its widths from the ink',
};

const nodesIn = (r: Reshaped): number => r.runs.reduce((n, run) => n + run.nodes.length, 0);
