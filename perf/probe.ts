/**
 * What runs inside the page. A frame costs the handler of its event, and all from the frame's first callback until,
 * with `readBack`, a pixel of each canvas has been read: raster is lazy, and only reading makes it happen.
 */
export type Gesture = 'pan' | 'zoom' | 'node drag';
export type Frames = { handler: number[]; frame: number[] };

export async function gesture(
  kind: Gesture,
  frames: number,
  readBack: boolean,
  node: { x: number; y: number },
): Promise<Frames> {
  const host = document.querySelector<HTMLElement>('[data-testid=page]')!;
  const canvases = [...host.querySelectorAll('canvas')];
  const box = host.getBoundingClientRect();
  const middle = { x: box.left + box.width / 2, y: box.top + box.height / 2 };
  const start = kind === 'node drag' ? node : middle;
  const [button, held] = kind === 'pan' ? [1, 4] : [0, 1];
  if (kind !== 'zoom') sendPointer('pointerdown', start.x, start.y, held, button);
  const result: Frames = { handler: [], frame: [] };
  for (let i = 0; i < frames; i++) {
    const turn = (i / frames) * Math.PI * 6;
    await new Promise<void>((resolve) => {
      let began = 0;
      let handled = 0;
      requestAnimationFrame(() => (began = performance.now()));
      const before = performance.now();
      if (kind === 'zoom') {
        const deltaY = Math.sin(turn) > 0 ? -12 : 12;
        host.dispatchEvent(
          new WheelEvent('wheel', {
            clientX: middle.x,
            clientY: middle.y,
            deltaY,
            ctrlKey: true,
            bubbles: true,
            cancelable: true,
          }),
        );
      } else {
        const reach = kind === 'pan' ? 90 : 30;
        const by = { x: Math.sin(turn) * reach, y: (1 - Math.cos(turn)) * reach * 0.6 };
        sendPointer('pointermove', start.x + by.x, start.y + by.y, held);
      }
      handled = performance.now() - before;
      requestAnimationFrame(() => {
        if (readBack) for (const c of canvases) c.getContext('2d')!.getImageData(0, 0, 1, 1);
        result.handler.push(handled);
        result.frame.push(handled + performance.now() - began);
        setTimeout(resolve, 0);
      });
    });
  }
  if (kind !== 'zoom') sendPointer('pointerup', start.x, start.y, 0, button);
  return result;
}

/** How long after the last turn of the wheel all is painted for the new view. */
export async function sharpAgain(times: number): Promise<number[]> {
  const host = document.querySelector<HTMLElement>('[data-testid=page]')!;
  const box = host.getBoundingClientRect();
  const result: number[] = [];
  for (let i = 0; i < times; i++) {
    for (let k = 0; k < 4; k++) {
      host.dispatchEvent(
        new WheelEvent('wheel', {
          clientX: box.left + 400,
          clientY: box.top + 300,
          deltaY: i % 2 ? 9 : -9,
          ctrlKey: true,
          bubbles: true,
          cancelable: true,
        }),
      );
      await new Promise((r) => requestAnimationFrame(r));
    }
    const rest = performance.now();
    while (host.dataset.sharp !== 'true') await new Promise((r) => setTimeout(r, 2));
    result.push(performance.now() - rest);
    await new Promise((r) => setTimeout(r, 200));
  }
  return result;
}

/** The same scene, painted whole in every frame: the reference, then all lines from cached paths. */
export async function redrawEverything(
  id: string,
  view: { scale: number; x: number; y: number },
  frames: number,
): Promise<number[]> {
  type P = { x: number; y: number };
  type N = { point: P; in: P | null; out: P | null };
  const { drawing } = await (await fetch(`/api/drawings/${id}`)).json();
  const host = document.querySelector<HTMLElement>('[data-testid=page]')!;
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [host.clientWidth * devicePixelRatio, host.clientHeight * devicePixelRatio];
  canvas.style.cssText = 'position:absolute;inset:0;z-index:9';
  host.append(canvas);
  const ctx = canvas.getContext('2d')!;
  const bitmap = await createImageBitmap(
    await (await fetch(`/api/pictures/${drawing.references[0].picture}?size=screen`)).blob(),
  );
  const lines = drawing.sheets
    .flatMap(
      (s: { items: { runs: { closed: boolean; nodes: N[] }[]; style: { width: number; stroke: string } }[] }) =>
        s.items,
    )
    .map((l: { runs: { closed: boolean; nodes: N[] }[]; style: { width: number; stroke: string } }) => {
      const path = new Path2D();
      for (const { nodes, closed } of l.runs) {
        path.moveTo(nodes[0].point.x, nodes[0].point.y);
        for (let i = 1; i < nodes.length + (closed ? 1 : 0); i++) {
          const [a, b] = [nodes[i - 1], nodes[i % nodes.length]];
          path.bezierCurveTo(
            a.point.x + (a.out?.x ?? 0),
            a.point.y + (a.out?.y ?? 0),
            b.point.x + (b.in?.x ?? 0),
            b.point.y + (b.in?.y ?? 0),
            b.point.x,
            b.point.y,
          );
        }
      }
      return { path, width: l.style.width, colour: l.style.stroke };
    });
  const result: number[] = [];
  for (let i = 0; i < frames; i++) {
    await new Promise((r) => requestAnimationFrame(r));
    const before = performance.now();
    ctx.setTransform(1, 0, 0, 1, 0, 0);
    ctx.fillStyle = '#cfcbc0';
    ctx.fillRect(0, 0, canvas.width, canvas.height);
    const k = view.scale * devicePixelRatio;
    ctx.setTransform(k, 0, 0, k, (view.x + i) * devicePixelRatio, view.y * devicePixelRatio);
    ctx.globalAlpha = 0.6;
    ctx.imageSmoothingQuality = 'low';
    ctx.drawImage(bitmap, 0, 0, drawing.page.width, drawing.page.height);
    ctx.globalAlpha = 1;
    ctx.lineCap = ctx.lineJoin = 'round';
    for (const l of lines) {
      ctx.lineWidth = l.width;
      ctx.strokeStyle = l.colour;
      ctx.stroke(l.path);
    }
    ctx.getImageData(0, 0, 1, 1);
    result.push(performance.now() - before);
  }
  canvas.remove();
  return result;
}
