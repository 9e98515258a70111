'use client';

import { LineChart } from 'echarts/charts';
import { GridComponent, MarkPointComponent } from 'echarts/components';
import * as echarts from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { useEffect, useRef } from 'react';
import type { LineDistance } from '@/core/check/lineDistance';

echarts.use([LineChart, GridComponent, MarkPointComponent, CanvasRenderer]);

const WIDTH = 202;
const HEIGHT = 84;
const PLOT = { left: 24, right: 6, top: 8, bottom: 6 };
/** More places than this are not drawn: a plot is not wider. */
const MOST = 400;
const MOST_MOVING = 120;
const MOVING_MS = 200;

type Props = {
  line: LineDistance;
  /** The line is under the hand. */
  moving: boolean;
  /** The pointer is over a place along the line; null when it leaves. */
  onPoint: (at: { x: number; y: number } | null) => void;
  onGo: (at: { x: number; y: number }) => void;
};

/** The distance from the ink along a line. Pointing at a place shows it on the page; a click goes there. */
export function DistancePlot({ line, moving, onPoint, onGo }: Props) {
  const drawn = useRef(-Infinity);
  const framed = useRef<{ most: number; along: number } | null>(null);
  const host = useRef<HTMLDivElement>(null);
  const chart = useRef<echarts.ECharts | null>(null);
  const latest = useRef({ line, onPoint, onGo });
  useEffect(() => {
    latest.current = { line, onPoint, onGo };
  });

  useEffect(() => {
    const made = echarts.init(host.current!, undefined, { width: WIDTH, height: HEIGHT });
    chart.current = made;
    const placeAt = (x: number): { x: number; y: number } | null => {
      const { places } = latest.current.line;
      const n = places.length / 4;
      const share = (x - PLOT.left) / (WIDTH - PLOT.left - PLOT.right);
      if (n === 0 || share < -0.02 || share > 1.02) return null;
      const want = Math.min(1, Math.max(0, share)) * places[4 * (n - 1) + 2];
      let i = 0;
      while (i < n - 1 && places[4 * i + 2] < want) i++;
      return { x: places[4 * i], y: places[4 * i + 1] };
    };
    const zr = made.getZr();
    zr.on('mousemove', (e) => latest.current.onPoint(placeAt(e.offsetX)));
    zr.on('globalout', () => latest.current.onPoint(null));
    zr.on('click', (e) => {
      const at = placeAt(e.offsetX);
      if (at) latest.current.onGo(at);
    });
    return () => {
      latest.current.onPoint(null);
      made.dispose();
      chart.current = null;
    };
  }, []);

  useEffect(() => {
    // Under the hand the figures come first: the plot follows a few times a second.
    const now = performance.now();
    if (moving && now - drawn.current < MOVING_MS) return;
    drawn.current = now;
    const n = line.places.length / 4;
    const each = Math.max(1, Math.ceil(n / (moving ? MOST_MOVING : MOST)));
    const data: [number, number | null][] = [];
    for (let i = 0; i < n; i += each) {
      const d = line.places[4 * i + 3];
      data.push([line.places[4 * i + 2], Number.isNaN(d) ? null : d]);
    }
    const along = n > 0 ? line.places[4 * (n - 1) + 2] || 1 : 1;
    const most = Math.max(2, Math.ceil(line.max));
    // The axes are laid out again only where they must be.
    const isRoomy = framed.current !== null && most <= framed.current.most && along <= framed.current.along * 1.02;
    if (moving && isRoomy) {
      chart.current?.setOption({ series: [{ data }] });
      return;
    }
    framed.current = { most, along };
    chart.current?.setOption({
      animation: false,
      grid: PLOT,
      xAxis: { type: 'value', show: false, min: 0, max: along },
      yAxis: {
        type: 'value',
        min: 0,
        max: most,
        splitNumber: 2,
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
          lineStyle: { color: '#27241d', width: 1.4 },
          areaStyle: { color: '#f4c20d', opacity: 0.35 },
        },
      ],
    });
  }, [line, moving]);

  return (
    <div
      ref={host}
      className="distance-plot"
      data-testid="distance-plot"
      role="img"
      aria-label={`Distance from the ink along the line, ${line.max.toFixed(1)} px at most`}
    />
  );
}
