'use client';

import { linesOf } from '@/core/drawing/items';
import { Button, Checkbox, Segmented } from 'antd';
import { useEffect, useMemo, useState } from 'react';
import { writeSvg } from '@/core';
import { viewOf } from '@/core/formats/svg/writeSvg';
import { pixelsAt } from '@/core/drawing/unit';
import { formatBytes, formatLength, formatNumber } from '@/ui/format';
import { NumberField } from '@/ui/NumberField';
import { useBenchState } from '../../benchContext';
import { Row } from '../shared/LineCard';

type Format = 'svg' | 'png';

/** Saving the lines as a file: what it will be is shown before. The reference is never in it, unless asked for. */
export function DeliverCard() {
  const id = useBenchState((s) => s.id);
  const title = useBenchState((s) => s.title);
  const drawing = useBenchState((s) => s.drawing);
  const saved = useBenchState((s) => s.save.kind === 'saved');
  const [format, setFormat] = useState<Format>('svg');
  const [scope, setScope] = useState<'page' | 'drawing'>('page');
  const [dpi, setDpi] = useState(drawing.page.dpi);
  const [ground, setGround] = useState(false);
  const [reference, setReference] = useState(false);

  const box = useMemo(() => viewOf(drawing, scope), [drawing, scope]);
  const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
  const svgBytes = useMemo(
    () => new TextEncoder().encode(writeSvg(drawing, { scope, ground })).length,
    [drawing, scope, ground],
  );
  const query = new URLSearchParams({
    format,
    scope,
    dpi: String(dpi),
    ground: ground ? 'page' : 'none',
    reference: reference ? '1' : '0',
  });
  const href = `/api/drawings/${id}/export?${query}`;
  const pngBytes = usePngSize(format === 'png' && saved ? href : null, drawing);
  const lines = drawing.sheets.filter((s) => s.visible).reduce((n, s) => n + linesOf(s).length, 0);
  const hidden = drawing.sheets.filter((s) => !s.visible && linesOf(s).length > 0).length;
  const fileSize =
    format === 'svg'
      ? reference
        ? 'lines and picture'
        : formatBytes(svgBytes)
      : pngBytes === null
        ? '…'
        : formatBytes(pngBytes);
  return (
    <div className="card" role="group" aria-label="Save as a file">
      <div className="row">
        <b>Save as a file</b>
      </div>
      <Segmented
        block
        size="small"
        aria-label="Format"
        value={format}
        options={[
          { value: 'svg', label: 'SVG' },
          { value: 'png', label: 'PNG' },
        ]}
        onChange={setFormat}
      />
      <Segmented
        block
        size="small"
        aria-label="What of it"
        value={scope}
        options={[
          { value: 'page', label: 'Whole page' },
          { value: 'drawing', label: 'Just the lines' },
        ]}
        onChange={setScope}
      />
      {format === 'png' && (
        <div className="fields">
          <span className="option-label">dpi</span>
          <NumberField label="Resolution" value={dpi} min={1} max={2400} onCommit={setDpi} />
        </div>
      )}
      <Checkbox checked={ground} onChange={(e) => setGround(e.target.checked)}>
        With the page’s ground
      </Checkbox>
      <Checkbox
        checked={reference}
        disabled={drawing.references.length === 0}
        onChange={(e) => setReference(e.target.checked)}
      >
        With the reference
      </Checkbox>
      <Row what="Lines" figure={formatNumber(lines)} />
      {hidden > 0 && <Row what="Hidden sheets left out" figure={formatNumber(hidden)} />}
      <Row
        what="In print"
        figure={`${formatLength(width, drawing.page.unit)} x ${formatLength(height, drawing.page.unit)}`}
      />
      {format === 'png' && (
        <Row
          what="In pixels"
          figure={`${formatNumber(pixelsAt(width, dpi))} x ${formatNumber(pixelsAt(height, dpi))}`}
        />
      )}
      <Row what="File" figure={fileSize} />
      <Button
        type="primary"
        block
        disabled={!saved || lines === 0}
        href={saved && lines > 0 ? href : undefined}
        download={`${title}.${format}`}
      >
        {saved ? `Save ${format.toUpperCase()}` : 'Waiting for the last change'}
      </Button>
      {lines === 0 && <p className="empty">There are no visible lines to save yet.</p>}
    </div>
  );
}

/** How many bytes the PNG has: asked of the server when the choices have rested. */
function usePngSize(href: string | null, drawing: unknown): number | null {
  const [known, setKnown] = useState<{ href: string; drawing: unknown; bytes: number } | null>(null);
  useEffect(() => {
    if (!href) return;
    const stop = new AbortController();
    const timer = setTimeout(async () => {
      const response = await fetch(href, { signal: stop.signal }).catch(() => null);
      const bytes = response?.ok ? (await response.blob()).size : null;
      if (bytes !== null) setKnown({ href, drawing, bytes });
    }, 400);
    return () => {
      clearTimeout(timer);
      stop.abort();
    };
  }, [href, drawing]);
  return known && known.href === href && known.drawing === drawing ? known.bytes : null;
}
