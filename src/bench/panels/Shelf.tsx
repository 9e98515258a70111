'use client';

import { ArrowDownOutlined, ArrowUpOutlined, CameraOutlined, PlusOutlined, PrinterOutlined } from '@ant-design/icons';
import { Button, Slider, Upload } from 'antd';
import { useState } from 'react';
import type { Reference } from '@/core';
import { dimAll, moveReference, removeReference, setReference } from '@/core/edits/references';
import { dpiOf } from '@/core/drawing/placement';
import { LockButton, RemoveButton, ShowButton } from '@/ui/cardButtons';
import { formatNumber, formatShare } from '@/ui/format';
import { bringIn, goToStage, PICTURE_TYPES } from '../commands/desk';
import { useBench, useBenchState } from '../benchContext';
import { pictureUrl } from '@/workers/pictureUrl';
import { CameraDialog } from './CameraDialog';
import { ScannerDialog } from './ScannerDialog';

/** The references: below all sheets, each with its dim and lock in reach. */
export function Shelf() {
  const bench = useBench();
  const references = useBenchState((s) => s.drawing.references);
  const reading = useBenchState((s) => s.reading);
  const dim = useBenchState((s) => (s.preview ?? s.drawing).dim);
  const [device, setDevice] = useState<'camera' | 'scanner' | null>(null);
  const keep = (files: File[]): void => void bringIn(bench, files);
  const state = references.length === 0 ? 'none yet' : references.every((r) => r.locked) ? 'locked' : 'below';
  return (
    <section className="shelf" aria-label="References">
      <h2>
        References <span>{state}</span>
        <span className="row-buttons">
          <Button
            size="small"
            type="text"
            icon={<CameraOutlined />}
            aria-label="Take a picture with a camera"
            title="Take a picture with a camera"
            disabled={reading}
            onClick={() => setDevice('camera')}
          />
          <Button
            size="small"
            type="text"
            icon={<PrinterOutlined />}
            aria-label="Scan a page"
            title="Scan a page"
            disabled={reading}
            onClick={() => setDevice('scanner')}
          />
          <Upload
            accept={PICTURE_TYPES}
            multiple
            showUploadList={false}
            disabled={reading}
            beforeUpload={(file) => (void bringIn(bench, [file]), false)}
          >
            <Button
              size="small"
              type="text"
              icon={<PlusOutlined />}
              aria-label="Bring in a picture"
              title="Bring in a picture"
              disabled={reading}
            />
          </Upload>
        </span>
      </h2>
      {references.length > 1 && (
        <label className="amount">
          <span className="option-label">dim all</span>
          <Slider
            min={0}
            max={100}
            disabled={reading}
            tooltip={{ open: false }}
            ariaLabelForHandle="Dim of all pictures"
            value={Math.round(dim * 100)}
            onChange={(v) => bench.show(dimAll(bench.getState().drawing, v / 100))}
            onChangeComplete={(v) => bench.commit(dimAll(bench.getState().drawing, v / 100))}
          />
          <b>{formatShare(dim)}</b>
        </label>
      )}
      {references.length === 0 && (
        <p className="empty">
          Drop or paste a picture, or choose one with the plus. It is laid under the work, dimmed and locked.
        </p>
      )}
      <ul>
        {references.toReversed().map((r) => (
          <ReferenceCard key={r.id} reference={r} reading={reading} />
        ))}
      </ul>
      <CameraDialog open={device === 'camera'} onClose={() => setDevice(null)} onKeep={keep} />
      <ScannerDialog open={device === 'scanner'} onClose={() => setDevice(null)} onKeep={keep} />
    </section>
  );
}

function ReferenceCard({ reference: r, reading }: { reference: Reference; reading: boolean }) {
  const bench = useBench();
  const [dragged, setDragged] = useState<number | null>(null);
  const edit = (after: Parameters<typeof setReference>[2], label: string) =>
    setReference(bench.getState().drawing, r.id, after, label);
  const count = useBenchState((s) => s.drawing.references.length);
  const shift = (by: number): void => {
    const { drawing } = bench.getState();
    const at = drawing.references.findIndex((x) => x.id === r.id);
    bench.commit(moveReference(drawing, r.id, at + by));
  };
  const dpi = Math.round(dpiOf(r));
  const unlock = (): void => {
    bench.commit(edit({ locked: !r.locked }, r.locked ? 'Unlock reference' : 'Lock reference'));
    if (!r.locked) return;
    goToStage(bench, 'prepare');
    bench.setState({ tool: 'place', reference: r.id });
  };
  const takeAway = (): void => {
    bench.commit(removeReference(bench.getState().drawing, r.id));
    bench.tell(`“${r.name}” was taken away.`, { label: 'Undo', run: () => bench.undo() });
  };
  return (
    <li
      className="reference"
      data-reference={r.name}
      onClick={() => bench.getState().reference !== r.id && bench.setState({ reference: r.id })}
    >
      {/* eslint-disable-next-line @next/next/no-img-element -- the server gives it in just this size */}
      <img src={pictureUrl(r.picture, 'thumb')} alt="" />
      <div>
        <div className="reference-name" title={r.name}>
          {r.name}
        </div>
        <div className="row">
          <span title={`${formatNumber(r.pixelWidth)} x ${formatNumber(r.pixelHeight)} px`}>
            {formatNumber(dpi)} dpi · dim
          </span>
          {formatShare(dragged ?? r.dim)}
        </div>
        <Slider
          min={0}
          max={100}
          disabled={reading}
          tooltip={{ open: false }}
          ariaLabelForHandle={`Dim of ${r.name}`}
          value={Math.round((dragged ?? r.dim) * 100)}
          onChange={(v) => {
            setDragged(v / 100);
            bench.show(edit({ dim: v / 100 }, 'Dim reference'));
          }}
          onChangeComplete={(v) => {
            setDragged(null);
            bench.commit(edit({ dim: v / 100 }, 'Dim reference'));
          }}
        />
        <div className="reference-buttons">
          <ShowButton
            what={r.name}
            shown={r.visible}
            disabled={reading}
            onClick={() => bench.commit(edit({ visible: !r.visible }, r.visible ? 'Hide reference' : 'Show reference'))}
          />
          <LockButton what={r.name} locked={r.locked} disabled={reading} onClick={unlock} />
          {count > 1 && (
            <>
              <Button
                type="text"
                size="small"
                className="on-hover"
                icon={<ArrowUpOutlined />}
                aria-label={`Lay ${r.name} nearer`}
                title="Nearer"
                disabled={reading}
                onClick={() => shift(1)}
              />
              <Button
                type="text"
                size="small"
                className="on-hover"
                icon={<ArrowDownOutlined />}
                aria-label={`Lay ${r.name} further`}
                title="Further"
                disabled={reading}
                onClick={() => shift(-1)}
              />
            </>
          )}
          <RemoveButton what={r.name} verb={['Take', 'away']} disabled={reading} onClick={takeAway} />
        </div>
      </div>
    </li>
  );
}
