import type { Hint, Tool } from '../tools/tool';
import { cssPointer } from './pointers';

/**
 * Tells of the tool in hand what it says: its hints, and the pointer that it wants. Once a frame, however much happens in
 * it: what lies under the pointer is asked of all lines.
 */
export class ToolTold {
  private frame: number | null = null;
  private lastHints = '';

  constructor(
    private readonly container: HTMLElement,
    private readonly tool: () => Tool,
    private readonly onHints: (hints: Hint[]) => void,
  ) {}

  soon(input: { readonly isPanning: boolean }): void {
    this.frame ??= requestAnimationFrame(() => {
      this.frame = null;
      this.tell(input);
    });
  }

  dispose(): void {
    if (this.frame !== null) cancelAnimationFrame(this.frame);
  }

  private tell({ isPanning }: { readonly isPanning: boolean }): void {
    const hints = this.tool().hints();
    const key = JSON.stringify(hints);
    if (key !== this.lastHints) this.onHints(hints);
    this.lastHints = key;
    if (!isPanning) this.container.style.cursor = cssPointer[this.tool().pointer()];
  }
}
