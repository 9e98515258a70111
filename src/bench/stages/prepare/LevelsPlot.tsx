'use client';

import { BarChart } from 'echarts/charts';
import { GraphicComponent, GridComponent } from 'echarts/components';
import * as echarts from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { useEffect, useRef } from 'react';

echarts.use([BarChart, GridComponent, GraphicComponent, CanvasRenderer]);

const WIDTH = 202;
const HEIGHT = 92;
const PLOT = { left: 6, right: 6, top: 4, bottom: 16 };
const INNER = WIDTH - PLOT.left - PLOT.right;

type Levels = { black: number; white: number; middle: number };
type Props = {
  tones: readonly number[];
  levels: Levels;
  disabled?: boolean;
  /** The hand moves a mark. */
  onMove: (levels: Levels) => void;
  /** It lets go. */
  onDone: (levels: Levels) => void;
};

const xOf = (tone: number): number => PLOT.left + (tone / 255) * INNER;
const toneAt = (x: number): number => Math.max(0, Math.min(255, ((x - PLOT.left) / INNER) * 255));
/** Where the tone lies that becomes the middle grey; and back. */
const middleTone = (l: Levels): number => l.black + (l.white - l.black) * 0.5 ** (1 / l.middle);
const middleFor = (tone: number, { black, white }: Levels): number => {
  const share = Math.min(0.98, Math.max(0.02, (tone - black) / Math.max(1, white - black)));
  return Math.min(10, Math.max(0.1, Math.log(0.5) / Math.log(share)));
};

/** The tones of a picture, and three marks under them: what becomes black, the middle grey, and white. */
export function LevelsPlot({ tones, levels, disabled, onMove, onDone }: Props) {
  const host = useRef<HTMLDivElement>(null);
  const chart = useRef<echarts.ECharts | null>(null);
  const latest = useRef({ levels, onMove, onDone });
  useEffect(() => {
    latest.current = { levels, onMove, onDone };
  });

  useEffect(() => {
    const made = echarts.init(host.current!, undefined, { width: WIDTH, height: HEIGHT });
    chart.current = made;
    return () => {
      made.dispose();
      chart.current = null;
    };
  }, []);

  useEffect(() => {
    const top = Math.max(1, ...tones.map((n) => Math.sqrt(n)));
    chart.current?.setOption({
      animation: false,
      grid: PLOT,
      xAxis: { type: 'category', show: false, data: tones.map((_, i) => i) },
      yAxis: { type: 'value', show: false, max: top },
      series: [
        {
          type: 'bar',
          data: tones.map((n) => Math.sqrt(n)),
          barCategoryGap: 0,
          itemStyle: { color: '#8d836c' },
          silent: true,
        },
      ],
    });
  }, [tones]);

  useEffect(() => {
    const moved = (which: 'black' | 'middle' | 'white', x: number): Levels => {
      const now = latest.current.levels;
      const tone = Math.round(toneAt(x));
      if (which === 'black') return { ...now, black: Math.min(tone, now.white - 1, 254) };
      if (which === 'white') return { ...now, white: Math.max(tone, now.black + 1, 1) };
      return { ...now, middle: Math.round(middleFor(tone, now) * 100) / 100 };
    };
    const mark = (which: 'black' | 'middle' | 'white', tone: number, fill: string) => ({
      id: which,
      type: 'polygon',
      shape: {
        points: [
          [0, 0],
          [6, 12],
          [-6, 12],
        ],
      },
      style: { fill, stroke: '#27241d', lineWidth: 1 },
      x: xOf(tone),
      y: HEIGHT - PLOT.bottom,
      cursor: 'ew-resize',
      draggable: disabled ? false : 'horizontal',
      z: 10,
      ondrag: (e: { target: { x: number } }) => latest.current.onMove(moved(which, e.target.x)),
      ondragend: (e: { target: { x: number } }) => latest.current.onDone(moved(which, e.target.x)),
    });
    chart.current?.setOption({
      graphic: [
        mark('black', levels.black, '#27241d'),
        mark('middle', middleTone(levels), '#8d836c'),
        mark('white', levels.white, '#ffffff'),
      ],
    });
  }, [levels, disabled]);

  return (
    <div
      ref={host}
      className="levels-plot"
      data-testid="levels"
      role="img"
      aria-label="Tones of the picture, with the marks for black, middle and white"
    />
  );
}
