'use client';

import { Button, Modal, Progress, Segmented, Select, Slider } from 'antd';
import { useEffect, useState } from 'react';
import { ask, askJson } from '../state/api';

type Page = { id: string; name: string; width: number; height: number };
type Scan = { id: string; state: 'scanning' | 'done' | 'failed' | 'stopped'; progress: number; why: string | null };
type Props = { open: boolean; onClose: () => void; onKeep: (files: File[]) => void };

const DPIS = [75, 100, 150, 200, 300, 400, 600];
const ASK_MS = 250;

/** Scans a page on the flat-bed that is connected to the server. */
export function ScannerDialog({ open, onClose, onKeep }: Props) {
  const [device, setDevice] = useState<{ name: string; pages: Page[] } | null>(null);
  const [page, setPage] = useState<string>('');
  const [dpi, setDpi] = useState(300);
  const [colour, setColour] = useState(false);
  const [scan, setScan] = useState<Scan | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const isBusy = scan?.state === 'scanning';

  useEffect(() => {
    if (!open) return;
    ask<{ name: string; pages: Page[] }>('/api/scanner')
      .then((d) => {
        setDevice(d);
        setPage((p) => p || d.pages[0].id);
      })
      .catch((e: Error) => setWrong(e.message));
  }, [open]);

  const run = async (): Promise<void> => {
    setWrong(null);
    try {
      const { id } = await askJson<{ id: string }>('/api/scanner/scans', 'POST', { page, dpi, colour });
      for (let now: Scan; ;) {
        now = await ask<Scan>(`/api/scanner/scans/${id}`);
        setScan(now);
        if (now.state === 'scanning') {
          await new Promise((r) => setTimeout(r, ASK_MS));
          continue;
        }
        if (now.state === 'done') {
          const blob = await (await fetch(`/api/scanner/scans/${id}/picture`)).blob();
          const name = `${device!.pages.find((p) => p.id === page)!.name}, ${dpi} dpi.png`;
          onKeep([new File([blob], name, { type: 'image/png' })]);
          onClose();
        } else setWrong(now.why);
        break;
      }
    } catch (error) {
      setWrong((error as Error).message);
    }
    setScan(null);
  };
  const stop = (): void =>
    void (scan && ask(`/api/scanner/scans/${scan.id}`, { method: 'DELETE' }).catch(() => undefined));
  return (
    <Modal
      title={device ? `Scan with ${device.name}` : 'Scan a page'}
      open={open}
      onCancel={() => {
        if (isBusy) stop();
        setWrong(null);
        onClose();
      }}
      footer={
        isBusy
          ? [
              <Button key="stop" onClick={stop}>
                Stop the scan
              </Button>,
            ]
          : [
              <Button key="scan" type="primary" disabled={!page} onClick={() => void run()}>
                Scan
              </Button>,
            ]
      }
    >
      <div className="fields">
        <span className="option-label">page on the glass</span>
        <Select
          aria-label="Page on the glass"
          value={page || undefined}
          disabled={isBusy}
          options={device?.pages.map((p) => ({ value: p.id, label: `${p.name}, ${p.width} x ${p.height} mm` })) ?? []}
          onChange={setPage}
        />
        <span className="option-label">dpi</span>
        <Slider
          ariaLabelForHandle="Scanner resolution"
          disabled={isBusy}
          min={0}
          max={DPIS.length - 1}
          marks={Object.fromEntries(DPIS.map((d, i) => [i, d]))}
          tooltip={{ open: false }}
          value={DPIS.indexOf(dpi)}
          onChange={(i) => setDpi(DPIS[i])}
        />
        <span className="option-label">in</span>
        <Segmented
          aria-label="Grey or colour"
          disabled={isBusy}
          value={colour ? 'colour' : 'grey'}
          options={['grey', 'colour']}
          onChange={(v) => setColour(v === 'colour')}
        />
      </div>
      {isBusy && <Progress percent={Math.round(scan.progress * 100)} aria-label="Progress of the scan" />}
      {wrong && <p role="alert">{wrong}</p>}
    </Modal>
  );
}
