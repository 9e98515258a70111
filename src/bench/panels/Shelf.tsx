'use client';

import { PlusOutlined } from '@ant-design/icons';
import { Button, Slider, Upload } from 'antd';
import { useState } from 'react';
import type { Reference } from '@/core';
import { removeReference, setReference } from '@/core/change/referenceEdits';
import { LockButton, RemoveButton, ShowButton } from '@/ui/cardButtons';
import { formatNumber, formatShare } from '@/ui/format';
import { bringIn, goToStage, PICTURE_TYPES } from '../actions';
import { useBench, useBenchState } from '../benchContext';
import { pictureUrl } from '../state/api';

/** The references: below all sheets, each with its dim and lock in reach. */
export function Shelf() {
  const bench = useBench();
  const references = useBenchState((s) => s.drawing.references);
  const reading = useBenchState((s) => s.reading);
  const state = references.length === 0 ? 'none yet' : references.every((r) => r.locked) ? 'locked, below' : 'below';
  return (
    <section className="shelf" aria-label="References">
      <h2>
        References <span>{state}</span>
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
      </h2>
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
    </section>
  );
}

function ReferenceCard({ reference: r, reading }: { reference: Reference; reading: boolean }) {
  const bench = useBench();
  const [dragged, setDragged] = useState<number | null>(null);
  const edit = (after: Parameters<typeof setReference>[2], label: string) =>
    setReference(bench.getState().drawing, r.id, after, label);
  const dpi = Math.round((r.pixelWidth * 96) / r.width);
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
    <li className="reference" data-reference={r.name}>
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
          <RemoveButton what={r.name} verb={['Take', 'away']} disabled={reading} onClick={takeAway} />
        </div>
      </div>
    </li>
  );
}
