'use client';

import { LineChart } from 'echarts/charts';
import { GridComponent, TooltipComponent } from 'echarts/components';
import * as echarts from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { useEffect, useMemo } from 'react';
import type { HistoryPoint } from '@/core/change/historyPoints';
import { formatNumber } from '@/ui/format';
import { useChart } from '@/ui/useChart';
import { minutesAtWork } from './minutesAtWork';

echarts.use([LineChart, GridComponent, TooltipComponent, CanvasRenderer]);

const [WIDTH, HEIGHT] = [206, 120];
/** Work that took less is told by its changes, minutes. */
const SHORTEST = 1;
const FONT = { fontFamily: '"Figtree Variable", sans-serif', fontSize: 10.5, color: '#665f4f' };

/** How lines and traced parts came to be, over the time at work. */
export function ProgressPlot({ points }: { points: readonly HistoryPoint[] }) {
  const { host, chart } = useChart(WIDTH, HEIGHT);
  const minutes = useMemo(() => minutesAtWork(points), [points]);
  const isBrief = minutes.at(-1)! < SHORTEST;
  const across = useMemo(() => (isBrief ? points.map((p) => p.revision) : minutes), [isBrief, minutes, points]);
  const last = points.at(-1)!;
  useEffect(() => {
    chart.current?.setOption({
      animation: false,
      grid: { left: 34, right: 30, top: 26, bottom: 20 },
      tooltip: {
        trigger: 'axis',
        confine: true,
        textStyle: { ...FONT, color: '#27241d' },
        formatter: (all: { dataIndex: number }[]) => {
          const p = points[all[0].dataIndex];
          const when = isBrief ? `change ${p.revision}` : `${formatNumber(minutes[all[0].dataIndex], 1)} min`;
          return `${when}: ${p.lines} lines, ${p.traced} of ${p.parts} parts<br>${echarts.format.encodeHTML(p.label)}`;
        },
      },
      xAxis: {
        type: 'value',
        min: 'dataMin',
        max: 'dataMax',
        name: isBrief ? 'changes' : '',
        nameLocation: 'middle',
        nameGap: 16,
        nameTextStyle: FONT,
        axisLabel: { ...FONT, formatter: isBrief ? '{value}' : '{value} min', hideOverlap: true, show: !isBrief },
        splitLine: { show: false },
      },
      yAxis: [
        { type: 'value', name: 'lines', nameTextStyle: FONT, axisLabel: FONT, minInterval: 1, splitNumber: 2 },
        {
          type: 'value',
          name: 'parts',
          nameTextStyle: FONT,
          axisLabel: FONT,
          minInterval: 1,
          splitNumber: 2,
          splitLine: { show: false },
        },
      ],
      series: [
        {
          type: 'line',
          showSymbol: false,
          data: points.map((p, i) => [across[i], p.lines]),
          lineStyle: { color: '#8a6a00', width: 2 },
          itemStyle: { color: '#8a6a00' },
        },
        {
          type: 'line',
          step: 'end',
          yAxisIndex: 1,
          showSymbol: false,
          data: points.map((p, i) => [across[i], p.traced]),
          lineStyle: { color: '#2f6f4f', width: 1.5, type: 'dashed' },
          itemStyle: { color: '#2f6f4f' },
        },
      ],
    });
  }, [chart, points, minutes, across, isBrief]);
  const told = `${formatNumber(last.lines)} lines after ${formatNumber(minutes.at(-1)!, 1)} minutes at work, ${last.traced} of ${last.parts} parts traced`;
  return <div ref={host} role="img" aria-label={`Progress over time: ${told}`} />;
}
