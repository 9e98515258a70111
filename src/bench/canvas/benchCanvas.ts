import Konva from 'konva/lib/Core';
import type { Drawing, Point, Reference } from '@/core';
import { plainLooks } from '@/painting/paintLine';
import { takeTool } from '../commands/desk';
import { preferences } from '../state/preferences';
import { MANY, shownDrawing, type Bench, type BenchState, type Made } from '../state/store';
import { MovedLayers } from './movedLayers';
import { toPage, zoomedAt, type View } from '../state/view';
import { tools, type ToolId } from '../tools/registry';
import type { Hint, Tool } from '../tools/tool';
import { GuideHand } from './guideHand';
import { HandInput } from './handInput';
import { CheckOverlay } from './checkOverlay';
import { clipToWork, paintBefore, paintCompared, showsBefore, undimmed } from './compare';
import { differingLines, linesTouched, LiveLines } from './liveLines';
import { Picking } from './picking';
import { paintGround, paintReferences, withoutTones } from './pageGround';
import { StillGround } from './stillGround';
import { MarksLayer } from './marksLayer';
import { paintMirror } from './mirrorMarks';
import { paintedShape } from './paintedShape';
import { paintPageLoupe } from './pageLoupe';
import { PictureStore } from './pictures';
import { paintDifferences } from './differenceMarks';
import { PointerPlace } from './pointerPlace';
import { keptPlace, sizeOf } from './keptPlace';
import { onKeyUp } from './onKeyUp';
import { readyForHand } from './readyForHand';
import { ReferencePlacer } from './referencePlacer';
import { paintOrder } from './orderMarks';
import { ReplayPainter } from './replayPainter';
import { paintGuides, paintRulers } from './rulers';
import { TileBoard } from './tileBoard';
import { ToolTold } from './toolTold';
import { changesGround, changesMarks } from './whatChanged';

const STILL_MS = 160;

/**
 * The page on the screen. Two canvases: below, the ground, the references and the painted tiles; above, whatever is
 * being moved, and the marks of the tool in hand. Follows the bench's state; hands the hand's doings to the tool.
 */
export class BenchCanvas {
  readonly picking = new Picking();
  private readonly stage: Konva.Stage;
  private readonly ground = new Konva.Layer({ listening: false });
  private readonly over = new MarksLayer();
  private readonly tiles: TileBoard;
  private readonly pictures: PictureStore;
  private readonly placer: ReferencePlacer;
  private readonly checks: CheckOverlay;
  private readonly tools: Record<ToolId, Tool>;
  private readonly guides: GuideHand;
  private readonly input: HandInput;
  private readonly pointer: PointerPlace;
  private readonly stop: (() => void)[] = [];
  private readonly live = new LiveLines();
  private readonly moved: MovedLayers;
  private readonly stillGround = new StillGround();
  private readonly placed: (view: View) => View;
  private readonly replay = new ReplayPainter();
  private announced: Made | null = null;
  private ratio = window.devicePixelRatio;
  private still = true;
  private stillTimer: ReturnType<typeof setTimeout> | undefined;
  private readonly told: ToolTold;
  private lastLook = '';
  private looks = plainLooks;

  constructor(
    private readonly bench: Bench,
    private readonly container: HTMLDivElement,
    onHints: (hints: Hint[]) => void,
  ) {
    this.told = new ToolTold(container, () => this.tool, onHints);
    const reach = {
      bench,
      picking: this.picking,
      unit: () => 1 / bench.getState().view.scale,
      repaint: () => this.toolNews(),
      onKeyUp,
      takeTool: (tool: ToolId) => takeTool(bench, tool),
      picture: (r: Reference) => this.pictures.bitmapFor(r, 4096, false),
    };
    this.tools = Object.fromEntries(tools.map((t) => [t.id, t.make(reach)])) as Record<ToolId, Tool>;
    this.checks = new CheckOverlay(bench, {
      still: () => this.ground.batchDraw(),
      moving: () => this.over.batchDraw(),
    });
    this.pointer = new PointerPlace(container, () => {
      if (this.pointer.at === null || bench.getState().rulers || preferences.getState().loupe) this.over.batchDraw();
    });
    Konva.autoDrawEnabled = false;
    this.placed = keptPlace(container);
    this.stage = new Konva.Stage({ container, ...sizeOf(container) });
    const warn = (text: string): void => bench.tell(text, undefined, 'warning');
    this.tiles = new TileBoard(
      () => this.newsFromTiles(),
      (why) => warn(`The lines could not be painted (${why}). They are safe; reload the page to see them.`),
    );
    this.moved = new MovedLayers(this.tiles, this.picking, this.live);
    this.pictures = new PictureStore(
      () => this.ground.batchDraw(),
      (r) => warn(`The picture “${r.name}” could not be loaded. It is tried again as you work.`),
    );
    // Empty, for what is added is painted at once: the window has not been measured yet.
    this.stage.add(this.ground, this.over);
    this.ground.add(paintedShape((ctx) => this.paintBelow(ctx)));
    this.over.add(paintedShape((ctx) => this.paintAbove(ctx)));
    this.placer = new ReferencePlacer(bench, this.over);
    // Before the hand's other doings, so that it can keep what is its own.
    this.guides = new GuideHand(bench, container, () => this.toolNews());
    this.input = new HandInput(
      container,
      bench,
      () => this.tool,
      this.placer,
      () => this.moving(),
    );
    this.tiles.load(bench.getState().drawing);
    this.look();
    this.stop.push(preferences.subscribe(() => this.look()));
    this.stop.push(bench.onChange((made) => (this.announced = made)));
    this.stop.push(bench.subscribe((s, before) => this.follow(s, before)));
    const resize = new ResizeObserver(() => this.measure());
    resize.observe(container);
    this.stop.push(() => resize.disconnect());
    this.measure();
    this.toolNews();
    this.tool.begin?.();
    this.stop.push(readyForHand(bench, this.picking));
    container.dataset.ready = 'true';
  }

  get tool(): Tool {
    return this.tools[this.bench.getState().tool];
  }

  get isSharp(): boolean {
    const { view, window: size } = this.bench.getState();
    return this.tiles.isSharp(view, size, this.ratio);
  }

  dispose(): void {
    this.stop.forEach((f) => f());
    clearTimeout(this.stillTimer);
    for (const part of ['told', 'input', 'placer', 'guides', 'pointer', 'checks', 'tiles', 'pictures'] as const)
      this[part].dispose();
    this.stage.destroy();
  }

  /** Where on the page the pointer is, or else the middle of what is seen. */
  get place(): Point {
    const { view, window: size } = this.bench.getState();
    return toPage(view, this.pointer.at ?? { x: size.width / 2, y: size.height / 2 });
  }

  zoomBy(factor: number): void {
    const { view, window: size } = this.bench.getState();
    this.moving();
    this.bench.setState({ view: zoomedAt(view, { x: size.width / 2, y: size.height / 2 }, view.scale * factor) });
  }

  /** Takes over how lines are to be seen; the painters are told when that is news. */
  private look(): void {
    const { draft, seeThrough, bare } = preferences.getState();
    const { solo } = this.bench.getState();
    const key = [draft, seeThrough, bare, solo].join();
    if (key !== this.lastLook) {
      this.lastLook = key;
      this.looks = { draft, seeThrough, bare };
      this.tiles.look(this.looks, solo);
      this.picking.see(solo);
    }
    this.toolNews();
  }

  private measure(): void {
    const size = sizeOf(this.container);
    this.ratio = window.devicePixelRatio;
    // That empties a canvas, also where it is no news.
    for (const canvas of [this.ground, this.over].map((layer) => layer.getCanvas()))
      if (canvas.getPixelRatio() !== this.ratio) canvas.setPixelRatio(this.ratio);
    this.bench.setState((s) => ({ window: size, view: this.placed(s.view) }));
    // Where that is news it is painted at once, and what is asked for is what is seen of the new window.
    this.stage.size(size);
    for (const layer of [this.ground, this.over]) layer.batchDraw();
  }

  /** The view is on the move: pictures are scaled cheaply until it has come to rest. */
  private moving(): void {
    this.still = false;
    this.pictures.isViewMoving = true;
    clearTimeout(this.stillTimer);
    this.stillTimer = setTimeout(() => {
      this.still = true;
      this.pictures.isViewMoving = false;
      for (const layer of [this.ground, this.over]) layer.batchDraw();
    }, STILL_MS);
  }

  private follow(s: BenchState, before: BenchState): void {
    if (s.tool !== before.tool) {
      this.tools[before.tool].finish();
      this.tool.begin?.();
      this.ground.batchDraw();
    }
    if (s.solo !== before.solo) this.look();
    if (s.drawing !== before.drawing) this.send(before.drawing, s.drawing, before.shift);
    if (s.lines !== before.lines) this.tiles.choose(s.lines.size > MANY ? s.lines : null);
    const begins = (s.shift === null) !== (before.shift === null);
    if (begins || (['preview', 'drawing', 'uncorrected'] as const).some((k) => s[k] !== before[k])) {
      // Lines that begin or cease to move are no longer, or again, painted with what keeps still.
      if (this.live.move(s.drawing, shownDrawing(s))) this.ground.batchDraw();
      this.tiles.hide(s.shift ? [...s.lines] : [...this.live.moved]);
    }
    if (changesGround(s, before)) this.ground.batchDraw();
    if (changesMarks(s, before)) {
      this.placer.place();
      this.toolNews();
    }
  }

  /** Tells the painter what became of the drawing, and draws what changed until it has caught up. */
  private send(before: Drawing, after: Drawing, shift: Point | null): void {
    const made = this.announced?.after === after ? this.announced : null;
    this.announced = null;
    const lines = made ? linesTouched(made) : differingLines(before, after).lines;
    const order = made ? this.tiles.change(made.change, !!shift || lines.length > MANY) : this.tiles.load(after);
    this.live.await(lines, order, !!shift);
    this.moved.letGo(shift, made?.change ?? null, order);
  }

  private newsFromTiles(): void {
    if (this.live.drop((order) => this.tiles.shows(order))) this.over.batchDraw();
    if (this.moved.drop() || this.bench.getState().lines.size > MANY) this.over.batchDraw();
    this.ground.batchDraw();
  }

  private toolNews(): void {
    this.over.batchDraw();
    this.told.soon(this.input);
  }

  private paintBelow(ctx: CanvasRenderingContext2D): void {
    const s = this.bench.getState();
    const shown = shownDrawing(s);
    const asked = this.tool.shows?.(shown) ?? shown;
    const drawing = s.uncorrected ? withoutTones(asked) : asked;
    ctx.save();
    ctx.setTransform(1, 0, 0, 1, 0, 0);
    paintGround(ctx, drawing.page, s.view, s.window, this.ratio);
    const pace = { still: this.still, moving: s.preview !== null && s.preview.references !== s.drawing.references };
    this.tiles.see(s.view, s.window, this.ratio);
    paintCompared(ctx, s, this.ratio, {
      references: (view, bright) => {
        const seen = bright ? undimmed(drawing) : drawing;
        if (this.still && !pace.moving && !s.compare)
          this.stillGround.paint(ctx, seen, view, s.window, this.ratio, this.pictures);
        else paintReferences(ctx, seen, view, s.window, this.ratio, this.pictures, pace);
      },
      ground: (view) => paintGround(ctx, drawing.page, view, s.window, this.ratio),
      lines: () => this.tiles.paint(ctx, s.view, s.window, this.ratio, this.still),
    });
    ctx.restore();
    this.checks.paintStill(ctx, s, this.ratio, this.live.moved, this.still);
    // Told on the element, so that whoever looks from outside knows when the picture is whole.
    const sharp = String(this.isSharp && this.live.isPainted);
    if (this.container.dataset.sharp !== sharp) this.container.dataset.sharp = sharp;
  }

  private paintAbove(ctx: CanvasRenderingContext2D): void {
    const s = this.bench.getState();
    const scale = s.view.scale * this.ratio;
    ctx.save();
    clipToWork(ctx, s, this.ratio);
    ctx.setTransform(scale, 0, 0, scale, s.view.x * this.ratio, s.view.y * this.ratio);
    const pictures = this.pictures.at(scale);
    if (s.replay) this.replay.paint(ctx, s, this.ratio, this.looks, pictures);
    else if (showsBefore(s)) paintBefore(ctx, s, scale, this.looks, pictures);
    else if (!s.lifted) this.live.paint(ctx, shownDrawing(s), s, this.ratio, pictures, this.looks);
    paintDifferences(ctx, s);
    ctx.setTransform(1, 0, 0, 1, 0, 0);
    if (!showsBefore(s) && !s.lifted && !s.replay) this.moved.paint(ctx, s, this.ratio, this.still);
    ctx.setTransform(this.ratio, 0, 0, this.ratio, 0, 0);
    const { page } = shownDrawing(s);
    paintGuides(ctx, page, s.view, s.window);
    paintMirror(ctx, s);
    paintOrder(ctx, s);
    this.checks.paintAbove(ctx, s, this.live.moved);
    if (!s.lifted && !s.replay) this.tool.paint(ctx, s.view);
    paintPageLoupe(ctx, s, this.ratio, this.pointer.at, {
      looks: this.looks,
      pictures: this.pictures,
      marks: (c, view) => this.tool.paint(c, view),
    });
    if (s.rulers) paintRulers(ctx, page, s.view, s.window, this.pointer.at);
    ctx.restore();
  }
}
