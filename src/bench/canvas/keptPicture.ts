import type { Size } from '../state/view';

/** What is painted once as a picture of the window, and kept for as long as nothing changes that it depends on. */
export class KeptPicture {
  private canvas: HTMLCanvasElement | null = null;
  private painted: readonly unknown[] = [];

  /** Lays it on a context in device px, `ratio` of them to a CSS px; where anything of `of` is new, `paint` paints it anew. */
  lay(
    ctx: CanvasRenderingContext2D,
    window: Size,
    ratio: number,
    of: readonly unknown[],
    paint: (own: CanvasRenderingContext2D) => void,
  ): void {
    const [width, height] = [Math.round(window.width * ratio), Math.round(window.height * ratio)];
    if (width === 0 || height === 0) return;
    const all = [width, height, ratio, ...of];
    this.canvas ??= document.createElement('canvas');
    if (all.length !== this.painted.length || all.some((value, i) => value !== this.painted[i])) {
      // That clears it, too.
      [this.canvas.width, this.canvas.height] = [width, height];
      paint(this.canvas.getContext('2d')!);
      this.painted = all;
    }
    ctx.drawImage(this.canvas, 0, 0);
  }

  /** Lets go of it. */
  forget(): void {
    [this.canvas, this.painted] = [null, []];
  }
}
