import type { Cubic } from '../geometry/cubic';
import { eachPlace, isRounded, nodesIn } from './packedNodes';
import { shownCubics } from './rounding';
import type { Line, Run } from './schema';

/** What a path is drawn into: a canvas, a `Path2D`, or text. */
export type PathSink = {
  moveTo(x: number, y: number): void;
  lineTo(x: number, y: number): void;
  bezierCurveTo(x1: number, y1: number, x2: number, y2: number, x: number, y: number): void;
  closePath(): void;
};

/** Draws a line's runs as they are shown. A lone node is a line to where it is. */
export function traceLine(sink: PathSink, { runs }: Pick<Line, 'runs'>): void {
  for (const run of runs) traceRun(sink, run);
}

/** Written out, for it is done for each of very many lines: most of them need not be made nodes of for it. */
function traceRun(sink: PathSink, run: Run): void {
  const { closed } = run;
  if ((closed || nodesIn(run) > 1) && isRounded(run)) return traceCubics(sink, shownCubics(run), closed);
  let count = 0;
  let [firstX, firstY, firstInX, firstInY] = [0, 0, 0, 0];
  let [x0, y0, x1, y1] = [0, 0, 0, 0];
  eachPlace(run, (x, y, inX, inY, outX, outY) => {
    if (count++ > 0) traceSegment(sink, x0, y0, x1, y1, inX, inY, x, y, false);
    else {
      sink.moveTo(x, y);
      [firstX, firstY, firstInX, firstInY] = [x, y, inX, inY];
    }
    x0 = x;
    y0 = y;
    x1 = outX;
    y1 = outY;
  });
  if (closed) {
    traceSegment(sink, x0, y0, x1, y1, firstInX, firstInY, firstX, firstY, true);
    sink.closePath();
  } else if (count === 1) sink.lineTo(firstX, firstY);
}

/** Draws cubics that follow each other. */
export function traceCubics(sink: PathSink, cubics: readonly Cubic[], closed: boolean): void {
  sink.moveTo(cubics[0][0].x, cubics[0][0].y);
  cubics.forEach(([a, b, c, d], i) =>
    traceSegment(sink, a.x, a.y, b.x, b.y, c.x, c.y, d.x, d.y, closed && i === cubics.length - 1),
  );
  if (closed) sink.closePath();
}

/** A straight segment is a line; one that closes a run comes about by itself. */
function traceSegment(
  sink: PathSink,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  x2: number,
  y2: number,
  x: number,
  y: number,
  isLast: boolean,
): void {
  const isPlain = x1 === x0 && y1 === y0 && x2 === x && y2 === y;
  if (!isPlain && !isThirds(x0, x1, x2, x, y0, y1, y2, y)) sink.bezierCurveTo(x1, y1, x2, y2, x, y);
  else if (!isLast) sink.lineTo(x, y);
}

/** Whether the handles lie at the thirds of a straight line. */
const isThirds = (x0: number, x1: number, x2: number, x3: number, y0: number, y1: number, y2: number, y3: number) =>
  x1 === third(x0, x3) && y1 === third(y0, y3) && x2 === twoThirds(x0, x3) && y2 === twoThirds(y0, y3);
const third = (from: number, to: number): number => from * (1 - 1 / 3) + to * (1 / 3);
const twoThirds = (from: number, to: number): number => from * (1 - 2 / 3) + to * (2 / 3);
