'use client';

import { Button } from 'antd';
import { useMemo, useState } from 'react';
import { linesOf } from '@/core/drawing/items';
import { viewOf } from '@/core/formats/svg/writeSvg';
import { formatBytes, formatLength, formatNumber } from '@/ui/format';
import { useBenchState } from '../../benchContext';
import { Row } from '../shared/LineCard';
import { FileFields, type FileChoices } from './FileFields';
import { useMadeFile } from './useMadeFile';

/** Saving as a file: it is made and seen before it is saved. The reference is never in it, unless asked for. */
export function DeliverCard() {
  const id = useBenchState((s) => s.id);
  const title = useBenchState((s) => s.title);
  const drawing = useBenchState((s) => s.drawing);
  const saved = useBenchState((s) => s.save.kind === 'saved');
  const [choices, setChoices] = useState<FileChoices>({
    format: 'svg',
    scope: 'page',
    dpi: drawing.page.dpi,
    quality: 90,
    ground: false,
    reference: false,
  });
  const { format, scope, dpi, quality, ground, reference } = choices;
  const box = useMemo(() => viewOf(drawing, scope), [drawing, scope]);
  const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
  const items = drawing.sheets.filter((s) => s.visible).reduce((n, s) => n + s.items.length, 0);
  const lines = drawing.sheets.filter((s) => s.visible).reduce((n, s) => n + linesOf(s).length, 0);
  const hidden = drawing.sheets.filter((s) => !s.visible && s.items.length > 0).length;
  const query = new URLSearchParams({
    format,
    scope,
    dpi: String(dpi),
    quality: String(quality),
    ground: ground ? 'page' : 'none',
    reference: reference ? '1' : '0',
  });
  const href = saved && items > 0 ? `/api/drawings/${id}/export?${query}` : null;
  const { file, trouble } = useMadeFile(href, drawing);
  return (
    <div className="card" role="group" aria-label="Save as a file">
      <div className="row">
        <b>Save as a file</b>
      </div>
      <FileFields
        choices={choices}
        width={width}
        height={height}
        hasReference={drawing.references.length > 0}
        onChange={setChoices}
      />
      {file && file.type.startsWith('image/') && format !== 'tiff' && (
        // eslint-disable-next-line @next/next/no-img-element -- the very file that is saved
        <img className="made-file" src={file.url} alt="The file as it will be" />
      )}
      <Row what="Lines" figure={formatNumber(lines)} />
      {hidden > 0 && <Row what="Hidden sheets left out" figure={formatNumber(hidden)} />}
      <Row
        what="In print"
        figure={`${formatLength(width, drawing.page.unit)} x ${formatLength(height, drawing.page.unit)}`}
      />
      <Row what="File" figure={file ? formatBytes(file.bytes) : href && !trouble ? 'being made …' : '–'} />
      {trouble && <p className="empty">{trouble}</p>}
      <Button
        type="primary"
        block
        disabled={!href || trouble !== null}
        href={href && !trouble ? (file?.url ?? href) : undefined}
        download={`${title}.${format}`}
      >
        {saved ? `Save ${format === 'webp' ? 'WebP' : format.toUpperCase()}` : 'Waiting for the last change'}
      </Button>
      {items === 0 && <p className="empty">There is nothing visible to save yet.</p>}
    </div>
  );
}
