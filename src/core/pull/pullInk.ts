import type { Cubic } from '../geometry/cubic';
import { fitCurve } from '../geometry/fit/fitCurve';
import type { Point } from '../geometry/point';
import { blurred } from '../raster/blur';
import { contours, signedArea } from '../raster/contours';
import { distanceField } from '../raster/distanceField';
import { assertGrayImage, valueAt, type GrayImage } from '../raster/grayImage';
import { thinned } from '../raster/thin';
import { centred, meanWidth } from '../assist/centreLine';
import { inkIn, inkOf, type Ink } from '../assist/inkMask';
import { readWidths } from '../assist/readWidths';
import type { Mark } from '../drawing/schema';
import { metEnds } from './meetEnds';
import { polylineLength, strokeGraph } from './strokeGraph';
import { untangled } from './untangle';

export type PullInkOptions = {
  /** What is darker than this is ink, 0…256; left out, ink is what stands clear of the paper around it. */
  level?: number;
  /** Shorter strokes (outline: outlines) are crumbs and left out, px. */
  minimumLength?: number;
  /** How far the fitted curves may run from what was found, px. */
  tolerance: number;
  mode: 'centre' | 'outline';
  /** Whether the widths of each stroke are told all along it. */
  widths?: boolean;
};

/**
 * A pulled line in the picture's pixels; `width` is the mean of the whole width of its ink, px; `marks` the half-widths to
 * both sides all along it, px, where they were asked for.
 */
export type PulledRun = { cubics: Cubic[]; closed: boolean; width?: number; marks?: Mark[] };

/** Called with 0…1 now and then; may throw to break off. */
export type Progress = (share: number) => void;

/**
 * Lines pulled from a picture's ink, the longest first. Centre: one run for each pencil stroke, along its middle, with
 * its mean width: the ink is thinned to a skeleton (Zhang and Suen 1984), read as a graph whose branches are joined where
 * they go straight on, moved to the middle of the ink, fitted, and led to the lines that they meet. Outline: the closed outlines of the ink, holes running
 * the other way round than what they lie in (marching squares), fitted. Paper is never a shape of its own.
 * @throws RangeError for a picture without pixels, an unknown mode, a level outside 0…256, a tolerance not above 0 or a
 * negative length.
 */
export function pullInk(image: GrayImage, options: PullInkOptions, progress: Progress = () => {}): PulledRun[] {
  assertGrayImage(image);
  const { level, minimumLength, tolerance, mode } = options;
  if (mode !== 'centre' && mode !== 'outline') throw new RangeError('the mode must be centre or outline');
  if (!(tolerance > 0) || !Number.isFinite(tolerance)) throw new RangeError('the tolerance must be a number above 0');
  if (level !== undefined && !(level >= 0 && level <= 256)) throw new RangeError('the level must lie within 0 and 256');
  if (minimumLength !== undefined && !(minimumLength >= 0))
    throw new RangeError('the smallest length must not be negative');
  progress(0);
  const ink = level === undefined ? inkIn(image) : inkOf(image, level);
  progress(0.44);
  if (mode === 'outline') return pullOutline(ink, image, options, progress);
  const radius = distanceField(ink.mask, ink.width, ink.height);
  if (strokeRadius(ink, radius) >= THIN || image.width * image.height > MOST_DOUBLED)
    return withMarks(pullCentre(ink, radius, options, progress), image, options);
  // Strokes a few pixels wide leave the thinning too little to tell neighbours apart: the picture is doubled for it.
  const twice = { ...options, tolerance: 2 * tolerance, ...(minimumLength && { minimumLength: 2 * minimumLength }) };
  const fine = inkOf(doubled(image), level);
  const runs = pullCentre(fine, distanceField(fine.mask, fine.width, fine.height), twice, progress).map(halved);
  return withMarks(runs, image, options);
}

/** Runs with their widths all along, where these are asked for: both sides alike, for they run in the ink's middle. */
function withMarks(runs: PulledRun[], image: GrayImage, { widths }: PullInkOptions): PulledRun[] {
  if (!widths) return runs;
  return runs.map((run) => {
    const marks = readWidths(run, image, { reach: Math.max(4, run.width!) });
    const even = marks.map(({ at, left, right }): Mark => ({
      at,
      left: (left + right) / 2,
      right: (left + right) / 2,
    }));
    return marks.length > 0 ? { ...run, marks: even } : run;
  });
}

/** Half a stroke's width, px, below which a picture is worked on at twice its size. */
const THIN = 4.3;
const MOST_DOUBLED = 6_000_000;

/** Half the width of the ink, the median over its middle lines, px; endless without ink. */
function strokeRadius({ width }: Ink, radius: Float32Array): number {
  const ridges: number[] = [];
  for (let i = width; i < radius.length - width; i++) {
    const r = radius[i];
    if (r > 0 && r >= radius[i - 1] && r >= radius[i + 1] && r >= radius[i - width] && r >= radius[i + width])
      ridges.push(r);
  }
  ridges.sort((a, b) => a - b);
  return ridges[ridges.length >> 1] ?? Infinity;
}

function doubled(image: GrayImage): GrayImage {
  const size = { width: 2 * image.width, height: 2 * image.height };
  const data = new Uint8Array(size.width * size.height);
  for (let y = 0; y < size.height; y++)
    for (let x = 0; x < size.width; x++)
      data[y * size.width + x] = Math.round(valueAt(image, (x + 0.5) / 2, (y + 0.5) / 2));
  return { ...size, data };
}

const halved = ({ cubics, closed, width }: PulledRun): PulledRun => ({
  cubics: cubics.map((c) => c.map((p) => ({ x: p.x / 2, y: p.y / 2 })) as Cubic),
  closed,
  width: width! / 2,
});

function pullCentre(ink: Ink, radius: Float32Array, options: PullInkOptions, progress: Progress): PulledRun[] {
  const { width, height, mask } = ink;
  progress(0.5);
  const skeleton = thinned(mask, width, height);
  progress(0.56);
  const radiusAt = (p: Point): number => radius[Math.floor(p.y) * width + Math.floor(p.x)];
  const graph = strokeGraph(skeleton, radius, width, height);
  for (const branch of graph.branches) branch.points = centred(branch.points, false, ink, radius);
  graph.rings = graph.rings.map((ring) => centred(ring, true, ink, radius));
  const strokes = untangled(graph, radiusAt);
  const kept = strokes
    .map((s) => ({ ...s, length: polylineLength(s.points), width: meanWidth(s.points, ink, radius) }))
    .filter((s) => s.points.length > 1 && s.length >= BLOB * s.width)
    .filter((s) => s.length + s.width >= (options.minimumLength ?? 1.25 * s.width))
    .sort((a, b) => b.length - a.length);
  const whole = kept.reduce((sum, s) => sum + s.length, 0) || 1;
  let fitted = 0;
  const runs = kept.map((s): PulledRun => {
    progress(0.68 + (0.26 * fitted) / whole);
    fitted += s.length;
    const points = spaced(s.points, STEP);
    return {
      cubics: fitStroke(points, options.tolerance, s.closed),
      closed: s.closed,
      width: s.width,
    };
  });
  progress(0.94);
  const isInk = ({ x, y }: Point): boolean => mask[Math.floor(y) * width + Math.floor(x)] === 1;
  const met = metEnds(runs, isInk);
  progress(1);
  return met;
}

/**
 * A stroke's middle fitted within the tolerance; but where half as much again would do with far fewer segments, it is
 * the paper's tooth that a few of its points show, and that is not followed.
 */
function fitStroke(points: Point[], tolerance: number, closed: boolean): Cubic[] {
  const near = fitCurve(points, { tolerance, closed });
  if (near.length < 4) return near;
  const wide = fitCurve(points, { tolerance: 1.5 * tolerance, closed });
  return near.length > 1.5 * wide.length + 1 ? wide : near;
}

/** What is shorter than this many of its widths is a blot, not a stroke. */
const BLOB = 0.6;

/** How far apart the points are that a stroke is fitted to, px. */
const STEP = 1.5;

function pullOutline(ink: Ink, image: GrayImage, options: PullInkOptions, progress: Progress): PulledRun[] {
  const field = edgeField(ink, image, options.level);
  progress(0.6);
  const outlines = contours(field.image, field.level)
    .map((points) => ({ points, length: polylineLength(points), area: Math.abs(signedArea(points)) }))
    .filter((o) => o.length >= (options.minimumLength ?? 12) && o.area >= 4)
    .sort((a, b) => b.length - a.length);
  return outlines.map(({ points }, i) => {
    progress(0.65 + (0.35 * i) / outlines.length);
    return { cubics: fitCurve(spaced(points, STEP), { tolerance: options.tolerance, closed: true }), closed: true };
  });
}

/** A picture and the level at which its outlines are taken: paper wherever the mask has none, so that no grain is outlined. */
function edgeField(ink: Ink, image: GrayImage, level?: number): { image: GrayImage; level: number } {
  const { width, height, mask, dark } = ink;
  const data = new Uint8Array(width * height);
  const smooth = level === undefined ? null : blurred(image, 1.1);
  for (let i = 0; i < data.length; i++) data[i] = smooth ? smooth.data[i] : 255 - dark[i];
  const limit = level ?? 255 - edgeOf(dark, mask);
  for (let i = 0; i < data.length; i++) {
    if (mask[i]) data[i] = Math.min(data[i], limit - 1);
    else data[i] = Math.max(data[i], limit);
  }
  return { image: { width, height, data }, level: limit - 0.5 };
}

/** The faintest darkness that is ink. */
function edgeOf(dark: Uint8Array, mask: Uint8Array): number {
  let least = 255;
  for (let i = 0; i < dark.length; i++) if (mask[i] && dark[i] > 0 && dark[i] < least) least = dark[i];
  return least;
}

/** Points about `step` apart in place of points that lie closer; the ends stay. */
function spaced(points: readonly Point[], step: number): Point[] {
  const result: Point[] = [points[0]];
  let length = 0;
  for (let i = 1; i < points.length; i++) {
    length += Math.hypot(points[i].x - points[i - 1].x, points[i].y - points[i - 1].y);
    if (length < step && i < points.length - 1) continue;
    result.push(points[i]);
    length = 0;
  }
  return result;
}
