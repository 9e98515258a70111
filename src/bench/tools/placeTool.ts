import type { Reference } from '@/core';
import { setReference } from '@/core/edits/references';
import { holdsPlace } from '@/core/drawing/placement';
import { shownDrawing } from '../state/store';
import type { HandEvent, Hint, PointerShape, ToolContext, Tool } from './tool';

/** Place: takes hold of an unlocked reference. The frame that moves and scales it is on the canvas itself. */
export class PlaceTool implements Tool {
  private at: HandEvent | null = null;

  constructor(private readonly context: ToolContext) {}

  private under(e: HandEvent): Reference | undefined {
    const { references } = shownDrawing(this.context.bench.getState());
    return references.findLast((r) => r.visible && holdsPlace(r, e.page));
  }

  press(e: HandEvent): void {
    const { bench } = this.context;
    const found = this.under(e);
    if (!found) bench.setState({ reference: null });
    else if (found.locked) {
      bench.tell(`“${found.name}” is locked, so that it cannot slip.`, {
        label: 'Unlock it',
        run: () => {
          bench.commit(setReference(bench.getState().drawing, found.id, { locked: false }, 'Unlock reference'));
          bench.setState({ reference: found.id });
        },
      });
    } else bench.setState({ reference: found.id });
  }

  move(): void {}
  release(): void {}

  hover(e: HandEvent | null): void {
    this.at = e;
  }

  key(key: string): boolean {
    const { bench } = this.context;
    if (key !== 'Escape' || !bench.getState().reference) return false;
    bench.setState({ reference: null });
    return true;
  }

  cancel(): void {}
  finish = (): void => this.context.bench.setState({ reference: null });
  paint(): void {}

  pointer(): PointerShape {
    const found = this.at && this.under(this.at);
    return found && !found.locked ? 'move' : 'arrow';
  }

  hints(): Hint[] {
    const { drawing, reference } = this.context.bench.getState();
    if (drawing.references.length === 0) return [{ keys: 'drop or paste a picture', what: 'lay it under the work' }];
    if (drawing.references.some((r) => r.id === reference && !r.locked)) {
      return [
        { keys: 'drag', what: 'move the picture' },
        { keys: 'drag a corner', what: 'scale it, proportions kept' },
        { keys: 'Alt', what: 'let the proportions go, about the middle' },
        { keys: 'drag the stalk', what: 'turn it; Shift: by 15°' },
        { keys: 'Escape', what: 'let go' },
      ];
    }
    if (drawing.references.every((r) => r.locked))
      return [
        { keys: 'unlock it on the shelf', what: 'move or scale the picture' },
        { keys: 'hold V', what: 'lift it away' },
      ];
    return [
      { keys: 'click a picture', what: 'take hold of it' },
      { keys: 'hold V', what: 'lift it away' },
    ];
  }
}
