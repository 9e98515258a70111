'use client';

import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { answering, MOST_SHARE, type Answer, type Response } from '@/core/ink/pressure';
import { formatShare } from '@/ui/format';

const [WIDTH, HEIGHT] = [236, 132];
/** Points of the curve stay this far apart, in pressure. */
const GAP = 0.03;
const [GRIP, STEP] = [10, 0.02];

const xOf = (pressure: number): number => pressure * WIDTH;
const yOf = (share: number): number => HEIGHT - (share / MOST_SHARE) * HEIGHT;

type Props = {
  response: Response;
  /** The curve as it is under the hand, and as it was let go. */
  onChange: (response: Response, isLast: boolean) => void;
};

/** A curve from no pressure to full: its points are dragged, a press beside them makes one, Delete takes one away. */
export function ResponsePlot({ response, onChange }: Props) {
  const hold = useRef<{ index: number; list: Response; before: Response } | null>(null);
  const [felt, feel] = useState<number | null>(null);
  const shareAt = answering(response);
  const curve = Array.from({ length: 61 }, (_, i) => i / 60)
    .map((p) => `${xOf(p).toFixed(1)} ${yOf(shareAt(p)).toFixed(1)}`)
    .join('L');

  const at = (e: PointerEvent<SVGSVGElement>): Answer => {
    const box = e.currentTarget.getBoundingClientRect();
    return {
      pressure: (e.clientX - box.left) / box.width,
      share: held((1 - (e.clientY - box.top) / box.height) * MOST_SHARE, 0, MOST_SHARE),
    };
  };
  const press = (e: PointerEvent<SVGSVGElement>): void => {
    if (e.button !== 0) return;
    const p = at(e);
    const near = response.findIndex(
      (a) => Math.hypot(xOf(a.pressure) - xOf(p.pressure), yOf(a.share) - yOf(p.share)) <= GRIP,
    );
    const list = near >= 0 ? response : withAnswer(response, p);
    const index = near >= 0 ? near : list.findIndex((a) => !response.includes(a));
    if (index < 0) return;
    hold.current = { index, list, before: response };
    e.currentTarget.setPointerCapture(e.pointerId);
    if (near < 0) onChange(list, false);
  };
  const drag = (e: PointerEvent<SVGSVGElement>, isLast: boolean): void => {
    if (e.pointerType === 'pen') feel(isLast ? null : e.pressure);
    const h = hold.current;
    if (!h) return;
    if (isLast) hold.current = null;
    onChange(moved(h.list, h.index, at(e)), isLast);
  };
  const giveUp = (): void => {
    if (hold.current) onChange(hold.current.before, true);
    hold.current = null;
  };
  const key = (e: KeyboardEvent, index: number): void => {
    const next = byKey(response, index, e.key, e.shiftKey ? 4 : 1);
    if (!next) return;
    e.preventDefault();
    e.stopPropagation();
    onChange(next, true);
  };

  return (
    <div className="response-plot">
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="group"
        aria-label="Width by pressure"
        onPointerDown={press}
        onPointerMove={(e) => drag(e, false)}
        onPointerUp={(e) => drag(e, true)}
        onPointerCancel={giveUp}
      >
        <path className="body" d={`M${curve}L${WIDTH} ${HEIGHT}L0 ${HEIGHT}Z`} />
        <path className="even" d={`M0 ${yOf(1)}H${WIDTH}`} />
        <text x="4" y={yOf(1) - 4}>
          the line’s width
        </text>
        {felt !== null && <path className="felt" d={`M${xOf(felt)} 0V${HEIGHT}`} />}
        <path className="curve" d={`M${curve}`} />
        {response.map((a, i) => (
          <circle
            key={i}
            cx={xOf(a.pressure)}
            cy={yOf(a.share)}
            r={4.5}
            tabIndex={0}
            role="slider"
            aria-label={`Point ${i + 1}`}
            aria-valuemin={0}
            aria-valuemax={MOST_SHARE * 100}
            aria-valuenow={Math.round(a.share * 100)}
            aria-valuetext={`${formatShare(a.share)} of the width at ${formatShare(a.pressure)} of the pressure`}
            onKeyDown={(e) => key(e, i)}
          />
        ))}
      </svg>
      <div className="ends">
        <span>light</span>
        <span>pressed hard</span>
      </div>
    </div>
  );
}

const held = (v: number, low: number, high: number): number => Math.min(high, Math.max(low, v));

/** A point more, where there is room for it. */
function withAnswer(response: Response, a: Answer): Response {
  if (response.some((b) => Math.abs(b.pressure - a.pressure) < GAP)) return response;
  return [...response, a].sort((p, q) => p.pressure - q.pressure);
}

/** A point moved between its neighbours; the first and the last stay at none and at full pressure. */
function moved(response: Response, index: number, to: Answer): Response {
  const [before, after] = [response[index - 1], response[index + 1]];
  const own = response[index].pressure;
  const pressure = before && after ? held(to.pressure, before.pressure + GAP, after.pressure - GAP) : own;
  return response.map((a, i) => (i === index ? { pressure, share: held(to.share, 0, MOST_SHARE) } : a));
}

function byKey(response: Response, index: number, key: string, times: number): Response | null {
  const a = response[index];
  const by = (pressure: number, share: number): Response =>
    moved(response, index, { pressure: a.pressure + pressure * times, share: a.share + share * times });
  switch (key) {
    case 'ArrowUp':
      return by(0, STEP);
    case 'ArrowDown':
      return by(0, -STEP);
    case 'ArrowRight':
      return by(STEP, 0);
    case 'ArrowLeft':
      return by(-STEP, 0);
    case 'Delete':
    case 'Backspace':
      return index > 0 && index < response.length - 1 ? response.filter((_, i) => i !== index) : null;
    default:
      return null;
  }
}
