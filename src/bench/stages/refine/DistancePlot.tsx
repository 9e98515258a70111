'use client';

import { LineChart } from 'echarts/charts';
import { GridComponent } from 'echarts/components';
import * as echarts from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { useEffectEvent, useLayoutEffect, useRef } from 'react';
import { useFollowing, type Following } from '@/ui/following';
import { useChart } from '@/ui/useChart';
import type { LineDistance } from '@/core/check/lineDistance';

echarts.use([LineChart, GridComponent, CanvasRenderer]);

const INK = '#27241d';
const WIDTH = 202;
const HEIGHT = 84;
const PLOT = { left: 24, right: 6, top: 8, bottom: 6 };
const [INNER_WIDTH, INNER_HEIGHT] = [WIDTH - PLOT.left - PLOT.right, HEIGHT - PLOT.top - PLOT.bottom];
/** More places than this are not drawn: a plot is not wider. */
const MOST = 400;
const MOST_MOVING = 160;

type Props = {
  line: Following<LineDistance | undefined>;
  /** The line is under the hand. */
  moving: boolean;
  /** The pointer is over a place along the line; null when it leaves. */
  onPoint: (at: { x: number; y: number } | null) => void;
  onGo: (at: { x: number; y: number }) => void;
};

/** How far the axes of a plot reach. */
type Extent = { along: number; most: number };

/**
 * The distance from the ink along a line. Pointing at a place shows it on the page; a click goes there. Under the hand,
 * where the chart would take too long for each frame, its curve is drawn by itself over the same axes.
 */
export function DistancePlot({ line, moving, onPoint, onGo }: Props) {
  const curve = useRef<HTMLCanvasElement>(null);
  const drawn = useRef<{ line: LineDistance; extent: Extent; moving: boolean } | null>(null);
  const now = useEffectEvent(() => line.now());
  const point = useEffectEvent(onPoint);
  const go = useEffectEvent(onGo);
  const { host, chart } = useChart(WIDTH, HEIGHT);

  useLayoutEffect(() => {
    drawn.current = null;
    const zr = chart.current!.getZr();
    const at = (x: number) => placeAt(now(), (x - PLOT.left) / INNER_WIDTH);
    zr.on('mousemove', (e) => point(at(e.offsetX)));
    zr.on('globalout', () => point(null));
    zr.on('click', (e) => {
      const place = at(e.offsetX);
      if (place) go(place);
    });
    return () => point(null);
  }, [chart]);

  useFollowing(line, (l) => {
    const before = drawn.current;
    if (!l || !chart.current || (before?.line === l && before.moving === moving)) return;
    const needed = extentOf(l);
    const fits = before !== null && needed.most <= before.extent.most && needed.along <= before.extent.along;
    // Under the hand the axes keep still, and give way with room to spare.
    const extent = !moving ? needed : fits ? before.extent : extentOf(l, 1.5);
    drawn.current = { line: l, extent, moving };
    if (moving || before?.moving) paintCurve(curve.current!, moving ? valuesOf(l, MOST_MOVING) : [], extent);
    if (moving && before?.moving && fits) return;
    chart.current.setOption(optionsOf(extent, moving ? [] : valuesOf(l, MOST)));
    if (!moving) {
      const most = `${l.max.toFixed(1)} px at most`;
      host.current?.setAttribute('aria-label', `Distance from the ink along the line, ${most}`);
    }
  });

  return (
    <div className="distance-plot" style={{ width: WIDTH, height: HEIGHT }}>
      <canvas ref={curve} aria-hidden="true" />
      <div ref={host} data-testid="distance-plot" role="img" />
    </div>
  );
}

/** The place on the page at a share of a line's way; null where there is none. */
function placeAt(line: LineDistance | undefined, share: number): { x: number; y: number } | null {
  const places = line?.places ?? [];
  const n = places.length / 4;
  if (n === 0 || share < -0.02 || share > 1.02) return null;
  const want = Math.min(1, Math.max(0, share)) * places[4 * (n - 1) + 2];
  let i = 0;
  while (i < n - 1 && places[4 * i + 2] < want) i++;
  return { x: places[4 * i], y: places[4 * i + 1] };
}

/** A round figure that is no less: with its half it is what the axis is marked with. */
function roundedUp(most: number): number {
  const ten = 10 ** Math.floor(Math.log10(most));
  return ten * [1, 2, 4, 6, 8, 10].find((k) => most <= k * ten * (1 + 1e-9))!;
}

function extentOf({ places, max }: LineDistance, room = 1): Extent {
  const along = places.length > 0 ? places[places.length - 2] || 1 : 1;
  return { along: along * (room > 1 ? 1.1 : 1), most: roundedUp(Math.max(2, max * room)) };
}

/** At most about so many pairs of how far along and how far off; null where there is no ink. */
function valuesOf({ places }: LineDistance, most: number): [number, number | null][] {
  const n = places.length / 4;
  const each = Math.max(1, Math.ceil(n / most));
  const values: [number, number | null][] = [];
  for (let i = 0; i < n; i += each) {
    const d = places[4 * i + 3];
    values.push([places[4 * i + 2], Number.isNaN(d) ? null : d]);
  }
  return values;
}

/** Draws the same by itself. */
function paintCurve(canvas: HTMLCanvasElement, values: [number, number | null][], { along, most }: Extent): void {
  const ratio = window.devicePixelRatio;
  const [width, height] = [Math.round(WIDTH * ratio), Math.round(HEIGHT * ratio)];
  if (canvas.width !== width || canvas.height !== height) Object.assign(canvas, { width, height });
  const ctx = canvas.getContext('2d')!;
  ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
  ctx.clearRect(0, 0, WIDTH, HEIGHT);
  ctx.beginPath();
  let open = false;
  for (const [s, off] of values) {
    if (off !== null) {
      const x = PLOT.left + (s / along) * INNER_WIDTH;
      const y = PLOT.top + (1 - off / most) * INNER_HEIGHT;
      if (open) ctx.lineTo(x, y);
      else ctx.moveTo(x, y);
    }
    open = off !== null;
  }
  ctx.lineWidth = 1.4;
  ctx.strokeStyle = INK;
  ctx.stroke();
}

const optionsOf = ({ along, most }: Extent, data: [number, number | null][]): echarts.EChartsCoreOption => ({
  animation: false,
  grid: PLOT,
  xAxis: { type: 'value', show: false, min: 0, max: along },
  yAxis: {
    type: 'value',
    min: 0,
    max: most,
    interval: most / 2,
    axisLabel: { fontSize: 10, color: '#6b6354' },
    splitLine: { lineStyle: { color: '#e4dfd2' } },
  },
  series: [
    {
      type: 'line',
      data,
      showSymbol: false,
      silent: true,
      connectNulls: false,
      lineStyle: { color: INK, width: 1.4 },
      areaStyle: { color: '#f4c20d', opacity: 0.35 },
    },
  ],
});
