'use client';

import * as echarts from 'echarts/core';
import { useLayoutEffect, useRef, type RefObject } from 'react';

type Chart = {
  /** What it is drawn in. */
  readonly host: RefObject<HTMLDivElement | null>;
  readonly chart: RefObject<echarts.ECharts | null>;
};

/** A chart of so many px, made before any effect of what shows it, and gone with it. */
export function useChart(width: number, height: number): Chart {
  const host = useRef<HTMLDivElement>(null);
  const chart = useRef<echarts.ECharts | null>(null);
  useLayoutEffect(() => {
    const made = echarts.init(host.current!, undefined, { width, height });
    chart.current = made;
    return () => {
      made.dispose();
      chart.current = null;
    };
  }, [width, height]);
  return { host, chart };
}
