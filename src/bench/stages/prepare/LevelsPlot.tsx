'use client';

import { BarChart } from 'echarts/charts';
import { GraphicComponent, GridComponent } from 'echarts/components';
import * as echarts from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { useEffect, useRef } from 'react';
import { useChart } from '@/ui/useChart';

echarts.use([BarChart, GridComponent, GraphicComponent, CanvasRenderer]);

const WIDTH = 202;
const HEIGHT = 92;
const PLOT = { left: 6, right: 6, top: 4, bottom: 19 };
const SLIP = 38;
const [INK, PAPER] = ['#27241d', '#fdfbf5'];
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
/** The part of a slip that is dragged is one of its children. */
type Dragged = { target: { x: number; parent?: { x: number } } };
const xOfDragged = ({ target }: Dragged): number =>
  target.parent && target.parent.x !== 0 ? target.parent.x : target.x;

/** The tones of a picture, and two slips on them: what is darker than the one is ink, what is lighter than the other paper. */
export function LevelsPlot({ tones, levels, disabled, onMove, onDone }: Props) {
  const { host, chart } = useChart(WIDTH, HEIGHT);
  const latest = useRef({ levels, onMove, onDone });
  useEffect(() => {
    latest.current = { levels, onMove, onDone };
  });

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
  }, [chart, tones]);

  useEffect(() => {
    const moved = (which: 'black' | 'white', x: number): Levels => {
      const now = latest.current.levels;
      const tone = Math.round(toneAt(x));
      if (which === 'black') return { ...now, black: Math.min(tone, now.white - 1, 254) };
      return { ...now, white: Math.max(tone, now.black + 1, 1) };
    };
    const foot = HEIGHT - PLOT.bottom;
    // A slip that hangs from an upright line: all to one side of it is ink, or paper.
    const slip = (which: 'black' | 'white', tone: number, word: string, side: 1 | -1) => ({
      id: which,
      type: 'group',
      x: xOf(tone),
      y: 0,
      z: 10,
      draggable: disabled ? false : ('horizontal' as const),
      ondrag: (e: Dragged) => latest.current.onMove(moved(which, xOfDragged(e))),
      ondragend: (e: Dragged) => latest.current.onDone(moved(which, xOfDragged(e))),
      children: [
        {
          type: 'rect',
          shape: { x: -5, y: PLOT.top, width: 10, height: HEIGHT - PLOT.top },
          style: { fill: 'rgba(0,0,0,0)' },
          cursor: 'ew-resize',
        },
        {
          type: 'line',
          shape: { x1: 0, y1: PLOT.top, x2: 0, y2: foot },
          style: { stroke: INK, lineWidth: 1.5 },
          cursor: 'ew-resize',
        },
        {
          type: 'rect',
          shape: { x: side > 0 ? 0 : -SLIP, y: foot, width: SLIP, height: PLOT.bottom - 1, r: 3 },
          style: { fill: which === 'black' ? INK : PAPER, stroke: INK, lineWidth: 1 },
          cursor: 'ew-resize',
        },
        {
          type: 'text',
          x: (side * SLIP) / 2,
          y: foot + (PLOT.bottom - 1) / 2,
          style: {
            text: word,
            fill: which === 'black' ? PAPER : INK,
            font: '11px "Figtree Variable", sans-serif',
            align: 'center',
            verticalAlign: 'middle',
          },
          cursor: 'ew-resize',
        },
      ],
    });
    const wash = (id: string, from: number, to: number, fill: string) => ({
      id,
      type: 'rect',
      shape: { x: from, y: PLOT.top, width: Math.max(0, to - from), height: foot - PLOT.top },
      style: { fill },
      silent: true,
      z: 5,
    });
    chart.current?.setOption({
      graphic: [
        wash('ink', PLOT.left, xOf(levels.black), 'rgba(39,36,29,0.35)'),
        wash('paper', xOf(levels.white), WIDTH - PLOT.right, 'rgba(253,251,245,0.75)'),
        slip('black', levels.black, 'ink', levels.black > 220 ? -1 : 1),
        slip('white', levels.white, 'paper', levels.white < 35 ? 1 : -1),
      ],
    });
  }, [chart, levels, disabled]);

  return (
    <div
      ref={host}
      className="levels-plot"
      data-testid="levels"
      role="img"
      aria-label="Tones of the picture: what is darker than the one slip is ink, what is lighter than the other is paper"
    />
  );
}
