'use client';

import { CompressOutlined, MinusOutlined, PlusOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import type { RefObject } from 'react';
import { formatLength, formatShare } from '@/ui/format';
import { actualSize, showPage } from '../commands/desk';
import type { BenchCanvas } from '../canvas/benchCanvas';
import { useBench, useBenchState } from '../benchContext';

/** How near the page is, and how large it is in truth. */
export function ZoomPill({ canvas }: { canvas: RefObject<BenchCanvas | null> }) {
  const bench = useBench();
  const page = useBenchState((s) => s.drawing.page);
  return (
    <div className="pill zoom">
      <Button
        type="text"
        size="small"
        icon={<MinusOutlined />}
        aria-label="Zoom out"
        title="Zoom out (−)"
        onClick={() => canvas.current?.zoomBy(1 / 1.25)}
      />
      <Scale />
      <Button
        type="text"
        size="small"
        icon={<PlusOutlined />}
        aria-label="Zoom in"
        title="Zoom in (+)"
        onClick={() => canvas.current?.zoomBy(1.25)}
      />
      <Button
        type="text"
        size="small"
        icon={<CompressOutlined />}
        aria-label="Show the whole page"
        title="Show the whole page (0)"
        onClick={() => showPage(bench)}
      />
      <span>
        {formatLength(page.width, page.unit, 1).replace(` ${page.unit}`, '')} x{' '}
        {formatLength(page.height, page.unit, 1)} · {page.dpi} dpi
      </span>
    </div>
  );
}

/** Drawn anew with every step of a zoom, and so on its own. */
function Scale() {
  const bench = useBench();
  const shown = useBenchState((s) => formatShare(s.view.scale, s.view.scale < 0.1 ? 1 : 0));
  return (
    <button
      type="button"
      className="scale"
      title="Show at 100 % (Shift 0)"
      onClick={() => actualSize(bench)}
      data-testid="scale"
    >
      {shown}
    </button>
  );
}
