'use client';

import { Button, Collapse } from 'antd';
import { useMemo } from 'react';
import { composed } from '@/core/deliver/composed';
import { fileName, filesOf } from '@/core/deliver/files';
import { formatBytes, formatLength, formatNumber } from '@/ui/format';
import { useBench, useBenchState } from '../../benchContext';
import { beginFiles, type NamedDelivery } from '../../state/files';
import { Row } from '../shared/LineCard';
import { FileFields } from './FileFields';
import { MadeFiles } from './MadeFiles';
import { Presets } from './Presets';
import { PrintFields } from './PrintFields';
import { SvgFields } from './SvgFields';
import { useDelivery } from './useDelivery';
import { useFileJobs } from './useFileJobs';
import { useMadeFile } from './useMadeFile';

/** Saving as a file: it is made and seen before it is saved. The reference is never in it, unless asked for. */
export function DeliverCard() {
  const bench = useBench();
  const id = useBenchState((s) => s.id);
  const title = useBenchState((s) => s.title);
  const drawing = useBenchState((s) => s.drawing);
  const saved = useBenchState((s) => s.save.kind === 'saved');
  const chosen = useBenchState((s) => s.lines.size + s.flats.size);
  const { wanted, set } = useDelivery();
  const { jobs, look } = useFileJobs(id);
  const files = useMemo(() => {
    try {
      return filesOf(drawing, wanted);
    } catch {
      return [];
    }
  }, [drawing, wanted]);
  const [first] = files;
  const box = useMemo(
    () => composed(first?.drawing ?? drawing, wanted, first?.beside && { beside: first.beside }).box,
    [drawing, first, wanted],
  );
  const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
  const hidden = drawing.sheets.filter((s) => !s.visible && s.items.length > 0).length;
  const canMake = saved && files.length > 0;
  const { file, trouble } = useMadeFile(id, canMake ? wanted : null, drawing);
  const make = (deliveries: readonly NamedDelivery[]): void =>
    void beginFiles(
      id,
      deliveries.map((d) =>
        d.wanted.scope === 'chosen' ? { ...d, wanted: { ...d.wanted, chosen: wanted.chosen ?? [] } } : d,
      ),
    )
      .then(look)
      .catch((e: Error) => bench.tell(e.message, undefined, 'warning'));
  const kind = wanted.format === 'webp' ? 'WebP' : wanted.format.toUpperCase();
  const unit = wanted.paper && drawing.page.unit !== 'in' ? 'mm' : drawing.page.unit;
  return (
    <>
      <div className="card" role="group" aria-label="Save as a file">
        <div className="row">
          <b>Save as a file</b>
        </div>
        <Presets wanted={wanted} set={set} make={make} disabled={!saved} />
        <FileFields
          wanted={wanted}
          set={set}
          width={width}
          height={height}
          hasReference={drawing.references.length > 0}
          hasFolders={drawing.folders.length > 0}
          chosen={chosen}
        />
        <Collapse
          ghost
          size="small"
          className="more-fields"
          items={[
            { key: 'print', label: 'For print', children: <PrintFields wanted={wanted} set={set} unit={unit} /> },
            ...(wanted.format === 'svg'
              ? [{ key: 'svg', label: 'How the SVG is written', children: <SvgFields wanted={wanted} set={set} /> }]
              : []),
          ]}
        />
        {file && file.type.startsWith('image/') && wanted.format !== 'tiff' && (
          // eslint-disable-next-line @next/next/no-img-element -- the very file that is saved
          <img className="made-file" src={file.url} alt="The file as it will be" />
        )}
        {hidden > 0 && <Row what="Hidden sheets left out" figure={formatNumber(hidden)} />}
        <Row what="In print" figure={`${formatLength(width, unit)} x ${formatLength(height, unit)}`} />
        {files.length > 1 && <Row what="Files" figure={formatNumber(files.length)} />}
        <Row
          what={files.length > 1 ? 'First file' : 'File'}
          figure={file ? formatBytes(file.bytes) : canMake && !trouble ? 'being made …' : '–'}
        />
        {trouble && <p className="empty">{trouble}</p>}
        {files.length > 1 ? (
          <Button
            type="primary"
            block
            disabled={!canMake || trouble !== null}
            onClick={() => make([{ name: '', wanted }])}
          >
            {saved ? `Make ${files.length} files, as a zip` : 'Waiting for the last change'}
          </Button>
        ) : (
          <Button
            type="primary"
            block
            disabled={!file}
            loading={canMake && !file && !trouble}
            href={file?.url}
            download={fileName([title], wanted.format)}
          >
            {saved ? `Save ${kind}` : 'Waiting for the last change'}
          </Button>
        )}
        {files.length === 0 && (
          <p className="empty">
            {wanted.scope === 'chosen' ? 'Nothing that is seen is chosen.' : 'There is nothing visible to save yet.'}
          </p>
        )}
      </div>
      <MadeFiles jobs={jobs ?? []} look={look} />
    </>
  );
}
