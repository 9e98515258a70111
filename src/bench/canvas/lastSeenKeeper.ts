import { keepLastSeen } from '../state/lastSeen';
import type { Bench } from '../state/store';
import { whenIdleAfter } from '@/ui/whenIdle';

/** A page is kept as it is seen once nothing has changed for so long, ms. */
const REST_MS = 1_500;
const PICTURE = { type: 'image/webp', quality: 0.7 };
/** What is too large to be kept is kept smaller. */
const SHARES = [1, 0.5, 0.25];

/** Keeps the page as it is seen, without marks, for when it is opened again. Gives what ends that. */
export function startKeepingSeen(bench: Bench, container: HTMLElement): () => void {
  let callOff = (): void => undefined;
  const later = (): void => {
    callOff();
    callOff = whenIdleAfter(REST_MS, () => void keep().catch(() => undefined));
  };
  const keep = async (): Promise<void> => {
    const { id, preview, compare, lifted, peek, uncorrected, replay, solo } = bench.getState();
    const isPlain = !preview && !compare && !lifted && !peek && !uncorrected && !replay && solo === null;
    if (!isPlain || container.dataset.sharp !== 'true') return later();
    const { left, top, width, height } = container.getBoundingClientRect();
    const place = { left, top, width, height, window: { width: innerWidth, height: innerHeight } };
    // The lower of the two canvases has the page and all that lies on it.
    const ground = container.querySelector('canvas')!;
    for (const share of SHARES)
      if (keepLastSeen(id, await pictureOf(ground, share * width, share * height), place)) return;
  };
  const stop = bench.subscribe((s, before) => {
    if (s.view !== before.view || s.drawing !== before.drawing || s.window !== before.window) later();
  });
  later();
  return () => {
    stop();
    callOff();
  };
}

/** A canvas as a picture of so many pixels, as a data URL. */
async function pictureOf(canvas: HTMLCanvasElement, width: number, height: number): Promise<string> {
  const small = new OffscreenCanvas(Math.max(1, Math.round(width)), Math.max(1, Math.round(height)));
  small.getContext('2d')!.drawImage(canvas, 0, 0, small.width, small.height);
  const picture = await small.convertToBlob(PICTURE);
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(reader.result as string);
    reader.onerror = () => reject(reader.error!);
    reader.readAsDataURL(picture);
  });
}
