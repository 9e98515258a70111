'use client';

import { BarChart } from 'echarts/charts';
import { GridComponent } from 'echarts/components';
import * as echarts from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { useEffect } from 'react';
import { useChart } from '@/ui/useChart';
import type { HandRecord } from '../../state/handRecord';
import { stageTable } from '../table';
import { minutes } from './minutes';

echarts.use([BarChart, GridComponent, CanvasRenderer]);

const [WIDTH, HEIGHT] = [206, 112];

/** A bar for each stage, as long as the time spent there. */
export function StageTimes({ stages }: Pick<HandRecord, 'stages'>) {
  const { host, chart } = useChart(WIDTH, HEIGHT);
  useEffect(() => {
    const font = { fontFamily: '"Figtree Variable", sans-serif', fontSize: 11, color: '#665f4f' };
    chart.current?.setOption({
      animation: false,
      grid: { left: 52, right: 48, top: 2, bottom: 2 },
      xAxis: { type: 'value', show: false },
      yAxis: {
        type: 'category',
        inverse: true,
        data: stageTable.map(({ label }) => label),
        axisLine: { show: false },
        axisTick: { show: false },
        axisLabel: font,
      },
      series: [
        {
          type: 'bar',
          data: stageTable.map(({ id }) => stages[id] ?? 0),
          itemStyle: { color: '#8a6a00', borderRadius: 2 },
          barCategoryGap: '30%',
          label: {
            show: true,
            position: 'right',
            ...font,
            formatter: (p: { value: unknown }) => minutes(Number(p.value)),
          },
          silent: true,
        },
      ],
    });
  }, [chart, stages]);
  const told = stageTable.map(({ id, label }) => `${label} ${minutes(stages[id] ?? 0)}`).join(', ');
  return <div ref={host} role="img" aria-label={`Time at each stage: ${told}`} />;
}
