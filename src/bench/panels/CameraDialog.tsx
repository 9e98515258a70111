'use client';

import { Button, Modal, Segmented, Spin } from 'antd';
import { useEffect, useRef, useState } from 'react';

type Shot = { file: File; url: string; kept: boolean };
type Props = { open: boolean; onClose: () => void; onKeep: (files: File[]) => void };

/** Takes pictures with a camera: the browser's own where there is one, or a simulated one. Take several, keep the best. */
export function CameraDialog({ open, onClose, onKeep }: Props) {
  const [which, setWhich] = useState<'own' | 'simulated'>('simulated');
  const [shots, setShots] = useState<Shot[]>([]);
  const [busy, setBusy] = useState(false);
  const [wrong, setWrong] = useState<string | null>(null);
  const video = useRef<HTMLVideoElement>(null);
  const pressed = useRef(0);
  const hasOwn = typeof navigator !== 'undefined' && !!navigator.mediaDevices?.getUserMedia;

  useEffect(() => {
    if (!open || which !== 'own') return;
    let stream: MediaStream | null = null;
    let left = false;
    navigator.mediaDevices
      .getUserMedia({ video: { width: { ideal: 4096 }, height: { ideal: 3072 }, facingMode: 'environment' } })
      .then((s) => {
        stream = s;
        if (left) s.getTracks().forEach((t) => t.stop());
        else if (video.current) video.current.srcObject = s;
      })
      .catch(() =>
        setWrong('This browser has no camera to give, or was not allowed to. The simulated one works without.'),
      );
    return () => {
      left = true;
      stream?.getTracks().forEach((t) => t.stop());
    };
  }, [open, which]);

  const take = async (): Promise<void> => {
    setBusy(true);
    setWrong(null);
    try {
      const blob = which === 'own' ? await frameOf(video.current!) : await simulated(pressed.current);
      pressed.current++;
      const file = new File([blob], `photo ${pressed.current}.jpg`, { type: 'image/jpeg' });
      setShots((all) => [
        ...all.map((s) => ({ ...s, kept: false })),
        { file, url: URL.createObjectURL(blob), kept: true },
      ]);
    } catch (error) {
      setWrong(`No picture was taken: ${(error as Error).message}`);
    }
    setBusy(false);
  };
  const close = (): void => {
    shots.forEach((s) => URL.revokeObjectURL(s.url));
    setShots([]);
    onClose();
  };
  const kept = shots.filter((s) => s.kept);
  return (
    <Modal
      title="Take a picture"
      open={open}
      onCancel={close}
      width={720}
      footer={[
        <Button key="take" onClick={() => void take()} loading={busy}>
          {shots.length === 0 ? 'Take a picture' : 'Take another'}
        </Button>,
        <Button
          key="keep"
          type="primary"
          disabled={kept.length === 0}
          onClick={() => {
            onKeep(kept.map((s) => s.file));
            close();
          }}
        >
          {kept.length > 1 ? `Keep ${kept.length}` : 'Keep it'}
        </Button>,
      ]}
    >
      <Segmented
        aria-label="Which camera"
        value={which}
        options={[
          { value: 'simulated', label: 'Simulated camera' },
          { value: 'own', label: 'This device’s camera', disabled: !hasOwn },
        ]}
        onChange={(v) => {
          setWrong(null);
          setWhich(v as typeof which);
        }}
      />
      {wrong && <p role="alert">{wrong}</p>}
      <div className="camera">
        {which === 'own' ? (
          <video ref={video} autoPlay playsInline muted aria-label="What the camera sees" />
        ) : shots.length === 0 ? (
          <p className="empty">
            {busy ? (
              <Spin />
            ) : (
              'A sketchbook page lies on a table. Each press sees it from another side, in another light.'
            )}
          </p>
        ) : (
          // eslint-disable-next-line @next/next/no-img-element -- a picture that was just taken
          <img src={(kept.at(-1) ?? shots.at(-1)!).url} alt="The picture in hand" />
        )}
      </div>
      <ul className="shots" aria-label="Pictures taken">
        {shots.map((s, i) => (
          <li key={s.url}>
            <button
              type="button"
              aria-pressed={s.kept}
              aria-label={`Picture ${i + 1}${s.kept ? ', to be kept' : ''}`}
              onClick={() => setShots((all) => all.map((x) => (x === s ? { ...x, kept: !x.kept } : x)))}
            >
              {/* eslint-disable-next-line @next/next/no-img-element -- a picture that was just taken */}
              <img src={s.url} alt="" />
            </button>
          </li>
        ))}
      </ul>
    </Modal>
  );
}

async function simulated(n: number): Promise<Blob> {
  const response = await fetch(`/api/camera/${n}`);
  if (!response.ok) throw new Error('the camera did not answer.');
  return response.blob();
}

async function frameOf(video: HTMLVideoElement): Promise<Blob> {
  if (!video.videoWidth) throw new Error('the camera shows nothing yet.');
  const canvas = new OffscreenCanvas(video.videoWidth, video.videoHeight);
  canvas.getContext('2d')!.drawImage(video, 0, 0);
  return canvas.convertToBlob({ type: 'image/jpeg', quality: 0.95 });
}
