'use client';

import { BarChart } from 'echarts/charts';
import { GridComponent } from 'echarts/components';
import * as echarts from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { Button, Switch } from 'antd';
import { useEffect } from 'react';
import { formatNumber } from '@/ui/format';
import { useChart } from '@/ui/useChart';
import { useBench, usePreference } from '../../benchContext';
import { handRecordOf, nothingDone, type HandRecord } from '../../state/handRecord';
import { prefer } from '../../state/preferences';
import { useStored } from '../../useStored';
import { createStore } from 'zustand/vanilla';
import { Row } from '../shared/LineCard';

echarts.use([BarChart, GridComponent, CanvasRenderer]);

const none = createStore<HandRecord>()(() => nothingDone);
const STAGES = [
  ['prepare', 'Prepare'],
  ['trace', 'Trace'],
  ['refine', 'Refine'],
  ['ink', 'Ink'],
  ['colour', 'Colour'],
  ['deliver', 'Deliver'],
] as const;
const [WIDTH, HEIGHT] = [206, 112];

/** Minutes as they are said. */
const minutes = (seconds: number): string =>
  seconds < 60 ? `${formatNumber(seconds)} s` : `${formatNumber(seconds / 60, seconds < 600 ? 1 : 0)} min`;

/** What the hand did on this drawing: counted on this machine, for nobody else, and not at all where it is put off. */
export function HandCard() {
  const bench = useBench();
  const recording = handRecordOf(bench);
  const record = useStored(recording?.store ?? none, (r) => r);
  const isOn = usePreference('handRecord');
  const total = Object.values(record.stages).reduce<number>((a, b) => a + (b ?? 0), 0);
  return (
    <div className="card" role="group" aria-label="The hand">
      <div className="row">
        <b>The hand</b>
        <label>
          <span className="option-label">count </span>
          <Switch size="small" checked={isOn} aria-label="Count" onChange={(on) => prefer({ handRecord: on })} />
        </label>
      </div>
      <p className="quiet">Counted on this machine, and kept here only.</p>
      <Row what="Presses" figure={formatNumber(record.presses)} />
      <Row what="Nodes laid" figure={formatNumber(record.nodes)} />
      <Row what="Taken back" figure={formatNumber(record.undos)} />
      <Row what="Time at work" figure={minutes(total)} />
      {total > 0 && <StageTimes stages={record.stages} />}
      {(total > 0 || record.presses > 0) && (
        <Button size="small" onClick={() => recording?.clear()}>
          Begin anew
        </Button>
      )}
    </div>
  );
}

/** A bar for each stage, as long as the time spent there. */
function StageTimes({ stages }: Pick<HandRecord, 'stages'>) {
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
        data: STAGES.map(([, label]) => label),
        axisLine: { show: false },
        axisTick: { show: false },
        axisLabel: font,
      },
      series: [
        {
          type: 'bar',
          data: STAGES.map(([id]) => stages[id] ?? 0),
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
  const told = STAGES.map(([id, label]) => `${label} ${minutes(stages[id] ?? 0)}`).join(', ');
  return <div ref={host} role="img" aria-label={`Time at each stage: ${told}`} />;
}
