'use client';

import { ScatterChart, LineChart } from 'echarts/charts';
import { GridComponent } from 'echarts/components';
import * as echarts from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { useEffect, useEffectEvent, useLayoutEffect, useState } from 'react';
import type { ToneDistance } from '@/core/edits/toneDistance';
import { useChart } from '@/ui/useChart';
import { tonesBeneath } from '../../state/beneath';

echarts.use([ScatterChart, LineChart, GridComponent, CanvasRenderer]);

const [WIDTH, HEIGHT] = [202, 150];
const PLOT = { left: 28, right: 8, top: 8, bottom: 26 };
const SIZE = { least: 6, most: 22 };
/** What is nearer than this lies as it should. */
const WELL = 0.02;

type Props = {
  distances: readonly ToneDistance[];
  chosen: ReadonlySet<string>;
  onGo: (flat: string) => void;
};

/** Each flat by the picture's tone and its own: on the slope it is as light; above it lighter, below darker. */
export function TonePlot({ distances, chosen, onGo }: Props) {
  const { host, chart } = useChart(WIDTH, HEIGHT);
  const [over, setOver] = useState<ToneDistance | null>(null);
  const go = useEffectEvent(onGo);
  const at = useEffectEvent((i: number) => distances[i]);
  const point = useEffectEvent((one: ToneDistance | null) => {
    setOver(one);
    tonesBeneath.setState({ pointed: one?.flat.id ?? null });
  });

  useLayoutEffect(() => {
    const made = chart.current!;
    made.on('click', (e) => e.seriesIndex === 1 && go(at(e.dataIndex).flat.id));
    made.on('mouseover', (e) => e.seriesIndex === 1 && point(at(e.dataIndex)));
    made.on('mouseout', () => point(null));
    return () => point(null);
  }, [chart]);

  useEffect(() => {
    const most = Math.max(1, ...distances.map((t) => t.pixels));
    chart.current!.setOption({
      animation: false,
      grid: PLOT,
      xAxis: axis('picture'),
      yAxis: { ...axis('flat'), nameGap: 18 },
      series: [
        {
          type: 'line',
          silent: true,
          showSymbol: false,
          data: [
            [0, 0],
            [1, 1],
          ],
          lineStyle: { color: '#a8461f', width: 1, type: 'dashed' },
        },
        {
          type: 'scatter',
          data: distances.map((t) => ({
            value: [t.picture, t.tone],
            // The form says which way it is off, the colour is the flat's own.
            symbol: Math.abs(t.distance) < WELL ? 'circle' : t.distance > 0 ? 'triangle' : 'rect',
            symbolSize: SIZE.least + (SIZE.most - SIZE.least) * Math.sqrt(t.pixels / most),
            itemStyle: {
              color: t.colour,
              borderColor: chosen.has(t.flat.id) ? '#f4c20d' : '#27241d',
              borderWidth: chosen.has(t.flat.id) ? 3 : 1,
            },
          })),
        },
      ],
    });
  }, [chart, distances, chosen]);

  return (
    <>
      <div
        ref={host}
        style={{ width: WIDTH, height: HEIGHT }}
        role="img"
        data-testid="tone-plot"
        aria-label={`Tones of ${distances.length} flats beside the picture’s: a triangle is lighter, a square darker`}
      />
      <span className="quiet">
        {over
          ? `picture ${over.picture.toFixed(2)}, flat ${over.tone.toFixed(2)}`
          : '▲ lighter than the picture, ■ darker'}
      </span>
    </>
  );
}

const axis = (name: string) => ({
  type: 'value',
  min: 0,
  max: 1,
  interval: 0.5,
  name,
  nameLocation: 'middle',
  nameGap: 14,
  nameTextStyle: { fontSize: 10, color: '#6b6354' },
  axisLabel: { fontSize: 10, color: '#6b6354' },
  splitLine: { lineStyle: { color: '#e4dfd2' } },
});
