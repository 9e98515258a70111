'use client';

import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { Line } from '@/core';
import { setMarks } from '@/core/edits/strokes';
import { findLine } from '@/core/drawing/find';
import type { Mark } from '@/core/drawing/schema';
import { grownMark, markByKey, movedMark } from '@/core/ink/heldMark';
import { marksAround, marksOn, withMark } from '@/core/ink/profiles';
import { widthProfile } from '@/core/ink/widths';
import { formatLength, formatShare } from '@/ui/format';
import { useBench, useBenchState } from '../../benchContext';
import { unrolledOutline } from './ProfileShape';

const [WIDTH, HEIGHT] = [232, 92];
const MIDDLE = HEIGHT / 2;
/** The widest place comes so near to the edge, px. */
const ROOM = 12;

type Hold = {
  marks: readonly Mark[];
  held: Mark;
  scale: number;
  from: { x: number; y: number };
  side: 1 | -1;
  moved: boolean;
};

/** The stroke of a line laid out straight: its marks are dragged up and down, and along; a press beside them makes one. */
export function UnrolledStroke({ line }: { line: Line }) {
  const bench = useBench();
  const reading = useBenchState((s) => s.reading);
  const chosen = useBenchState((s) => s.mark);
  const hold = useRef<Hold | null>(null);
  // While the hand pulls, the drawing keeps its scale.
  const [heldScale, holdScale] = useState<number | null>(null);
  const marks = marksOn(line);
  const { closed } = line.runs[0];
  const most = Math.max(...marks.map((m) => Math.max(m.left, m.right)), 0.5);
  const scale = heldScale ?? (MIDDLE - ROOM) / most;

  const at = (e: PointerEvent<SVGSVGElement>): { x: number; y: number } => {
    const box = e.currentTarget.getBoundingClientRect();
    return { x: ((e.clientX - box.left) / box.width) * WIDTH, y: ((e.clientY - box.top) / box.height) * HEIGHT };
  };
  const own = (): Line | undefined => findLine(bench.getState().drawing, line.id)?.line;
  const edit = (next: readonly Mark[], label: string) =>
    setMarks(bench.getState().drawing, new Map([[line.id, next]]), label);

  const press = (e: PointerEvent<SVGSVGElement>): void => {
    if (reading || e.button !== 0) return;
    const p = at(e);
    const known = own()?.marks ?? [];
    const side = p.y <= MIDDLE ? 1 : -1;
    const near = known.findIndex((m) => {
      const y = MIDDLE - side * (side > 0 ? m.left : m.right) * scale;
      return Math.hypot(m.at * WIDTH - p.x, y - p.y) < 9;
    });
    const share = Math.min(1, Math.max(0, p.x / WIDTH));
    const { left, right } = widthProfile(marksOn(line), closed).at(share);
    const held = near >= 0 ? known[near] : { at: share, left, right };
    const all = near >= 0 ? known : withMark(known.length > 0 ? known : marksAround(line, share), held);
    bench.setState({ mark: near >= 0 ? near : null });
    hold.current = { marks: all, held, scale, from: p, side, moved: false };
    holdScale(scale);
    e.currentTarget.setPointerCapture(e.pointerId);
  };
  const pulled = (h: Hold, p: { x: number; y: number }, alone: boolean): Mark[] => {
    const others = h.marks.filter((m) => m !== h.held);
    const along = movedMark(h.marks, h.held, h.held.at + (p.x - h.from.x) / WIDTH);
    const side = !alone ? 'both' : h.side > 0 ? 'left' : 'right';
    return withMark(others, grownMark(along, (h.side * (h.from.y - p.y)) / h.scale, side));
  };
  const move = (e: PointerEvent<SVGSVGElement>): void => {
    const h = hold.current;
    if (!h) return;
    const p = at(e);
    h.moved ||= Math.hypot(p.x - h.from.x, p.y - h.from.y) > 2;
    if (h.moved) bench.show(edit(pulled(h, p, e.altKey), 'Swell line'));
  };
  const release = (e: PointerEvent<SVGSVGElement>): void => {
    const h = hold.current;
    hold.current = null;
    holdScale(null);
    if (!h) return;
    const isNew = !(own()?.marks ?? []).includes(h.held);
    if (!h.moved && !isNew) return;
    const next = h.moved ? pulled(h, at(e), e.altKey) : [...h.marks];
    bench.commit(edit(next, isNew && !h.moved ? 'Add mark' : 'Swell line'));
    const index = next.findIndex((m) => m === h.held || !h.marks.includes(m));
    bench.setState({ mark: index >= 0 ? index : null });
  };
  const key = (e: KeyboardEvent, index: number): void => {
    const done = reading ? null : markByKey(own()?.marks ?? [], index, e.key, e.shiftKey);
    if (!done) return;
    e.preventDefault();
    e.stopPropagation();
    bench.commit(edit(done.marks, done.label));
  };

  return (
    <svg
      className="unrolled"
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="group"
      aria-label="The stroke, unrolled"
      onPointerDown={press}
      onPointerMove={move}
      onPointerUp={release}
      onPointerCancel={() => {
        hold.current = null;
        holdScale(null);
        bench.show(null);
      }}
    >
      <path d={unrolledOutline(marks, closed, { width: WIDTH, middle: MIDDLE, scale, places: 96 })} className="body" />
      <path d={`M0 ${MIDDLE}H${WIDTH}`} className="middle" />
      {(line.marks ?? []).map((m, i) => (
        <g
          key={i}
          className={`${i === chosen ? 'mark on' : 'mark'}${m.sharp ? ' sharp' : ''}`}
          tabIndex={0}
          role="slider"
          aria-label={`Mark ${i + 1}`}
          aria-valuenow={Math.round((m.left + m.right) * 100) / 100}
          aria-valuetext={`${formatLength(m.left + m.right, 'pt')} wide, at ${formatShare(m.at)} of the line`}
          onFocus={() => bench.setState({ mark: i })}
          onKeyDown={(e) => key(e, i)}
        >
          <path d={`M${m.at * WIDTH} ${MIDDLE - m.left * scale}V${MIDDLE + m.right * scale}`} />
          {[MIDDLE - m.left * scale, MIDDLE + m.right * scale].map((y, k) =>
            m.sharp ? (
              <path key={k} className="head" d={`M${m.at * WIDTH - 4} ${y}h8l-4 ${k === 0 ? -6 : 6}z`} />
            ) : (
              <circle key={k} className="head" cx={m.at * WIDTH} cy={y} r={3.6} />
            ),
          )}
        </g>
      ))}
    </svg>
  );
}
