/** What runs inside the page: each is sent there by itself. */

export function keyThenFrame(key: KeyboardEventInit): Promise<number> {
  const canvases = [...document.querySelectorAll<HTMLCanvasElement>('[data-testid=page] canvas')];
  const before = performance.now();
  window.dispatchEvent(new KeyboardEvent('keydown', { ...key, bubbles: true, cancelable: true }));
  return new Promise((resolve) =>
    requestAnimationFrame(() =>
      setTimeout(() => {
        for (const c of canvases) c.getContext('2d')!.getImageData(0, 0, 1, 1);
        resolve(performance.now() - before);
      }, 0),
    ),
  );
}

/** Drags what is chosen by a line near the middle of the window: each frame, and what letting go of it took. */
export async function drag(frames: number): Promise<{ frame: number[]; longestTask: number; saved: number }> {
  const host = document.querySelector<HTMLElement>('[data-testid=page]')!;
  const canvases = [...host.querySelectorAll('canvas')];
  const box = host.getBoundingClientRect();
  // A place on a line that is chosen: where the pointer turns into one that moves.
  let at = { x: box.left + box.width / 2, y: box.top + box.height / 2 };
  for (let i = 0; i < 4_000; i++) {
    const turn = i * 0.35;
    const far = 2 + i * 0.09;
    at = { x: box.left + box.width / 2 + Math.cos(turn) * far, y: box.top + box.height / 2 + Math.sin(turn) * far };
    sendPointer('pointermove', at.x, at.y, 0);
    await new Promise((r) => requestAnimationFrame(r));
    if (host.style.cursor.includes('pointer') || /over|move/.test(document.querySelector('.hints')?.textContent ?? ''))
      break;
  }
  const frame: number[] = [];
  sendPointer('pointerdown', at.x, at.y, 1);
  for (let i = 0; i < frames; i++) {
    const turn = (i / frames) * Math.PI * 4;
    await new Promise<void>((resolve) => {
      const before = performance.now();
      sendPointer('pointermove', at.x + Math.sin(turn) * 60 + 8, at.y + (1 - Math.cos(turn)) * 40, 1);
      const handled = performance.now() - before;
      let began = 0;
      requestAnimationFrame(() => (began = performance.now()));
      requestAnimationFrame(() => {
        for (const c of canvases) c.getContext('2d')!.getImageData(0, 0, 1, 1);
        frame.push(handled + performance.now() - began);
        setTimeout(resolve, 0);
      });
    });
  }
  let longestTask = 0;
  const observer = new PerformanceObserver((list) => {
    for (const e of list.getEntries()) longestTask = Math.max(longestTask, e.duration);
  });
  observer.observe({ type: 'longtask' });
  const before = performance.now();
  sendPointer('pointerup', at.x, at.y, 0);
  const save = document.querySelector<HTMLElement>('.save')!;
  // It is made within the next frames; then it is on its way to the disk.
  for (const isWaitedFor of [(is: string) => is === 'saved', (is: string) => is !== 'saved'])
    while (isWaitedFor(save.dataset.save!) && performance.now() - before < 60_000)
      await new Promise((r) => setTimeout(r, 5));
  const saved = performance.now() - before;
  await new Promise((r) => setTimeout(r, 1_500));
  observer.disconnect();
  return { frame, longestTask, saved };
}

/** What is chosen, copied. */
export function copiedText(): string {
  const data = new DataTransfer();
  document.dispatchEvent(new ClipboardEvent('copy', { clipboardData: data, bubbles: true, cancelable: true }));
  return data.getData('text/plain');
}

/**
 * Pastes a text: until its lines are seen, nearly all that looks different in the end does so, and until the page says as well
 * that they are a change on its way to the disk. Looked at in every frame, raster counted.
 */
export async function pasteText(text: string): Promise<{ made: number; seen: number }> {
  const canvases = [...document.querySelectorAll<HTMLCanvasElement>('[data-testid=page] canvas')];
  const save = document.querySelector<HTMLElement>('.save')!;
  const data = new DataTransfer();
  data.setData('text/plain', text);
  const { width, height } = canvases[0];
  const rows = [0.2, 0.35, 0.5, 0.65, 0.8].map((y) => Math.round(y * height));
  const eye = new OffscreenCanvas(width, rows.length).getContext('2d', { willReadFrequently: true })!;
  /** Some rows of the page as a person sees them, or of its lower canvas alone, where lines come to be without marks. */
  const look = (of = canvases): Uint32Array => {
    for (const c of of) rows.forEach((y, i) => eye.drawImage(c, 0, y, width, 1, 0, i, width, 1));
    return new Uint32Array(eye.getImageData(0, 0, width, rows.length).data.buffer);
  };
  const [first, firstLines] = [look(), look(canvases.slice(0, 1))];
  const looks: { at: number; pixels: Uint32Array }[] = [];
  let made = 0;
  const before = performance.now();
  document.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  // Until all is at rest again, however long it takes to begin.
  while (performance.now() - before < (made ? Math.max(3_000, made + 2_000) : 30_000)) {
    await new Promise((r) => requestAnimationFrame(() => setTimeout(r, 0)));
    const isMade = save.dataset.save !== 'saved';
    const pixels = look();
    looks.push({ at: performance.now() - before, pixels });
    if (isMade) made ||= performance.now() - before;
    // Looked at in every frame from now on, the looking itself would take longest.
    if (made) await new Promise((r) => setTimeout(r, 40));
  }
  const lastLines = look(canvases.slice(0, 1));
  const places = [...lastLines.keys()].filter((i) => lastLines[i] !== firstLines[i]);
  const share = (pixels: Uint32Array): number => places.filter((i) => pixels[i] !== first[i]).length / places.length;
  return { made, seen: looks.find(({ pixels }) => share(pixels) > 0.95)!.at };
}

/** The main thread's work for one node moved by an arrow key, many times. */
export async function nudge(times: number): Promise<number[]> {
  const found: number[] = [];
  for (let i = 0; i < times; i++) {
    const before = performance.now();
    for (const type of ['keydown', 'keyup'])
      window.dispatchEvent(
        new KeyboardEvent(type, { key: i % 2 ? 'ArrowLeft' : 'ArrowRight', bubbles: true, cancelable: true }),
      );
    await Promise.resolve();
    found.push(performance.now() - before);
    await new Promise((r) => setTimeout(r, 60));
  }
  return found;
}
