import type { Point } from '@/core';
import type { Note } from '@/core/check/note';
import type { Checked } from '../state/checked';
import { noteWords } from '../state/noteWords';
import { toScreen, type View } from '../state/view';
import { paintNote, strokeHaloed } from './marks';

const BRICK = '#a5361c';
/** Notes nearer to each other than this are one flag, CSS px. */
const TOGETHER = 36;
/** More flags than these would hide the drawing. */
const MOST = 120;
const BEYOND = 20;

/** A flag: where it is planted, CSS px, and how many notes lie about there. */
export type Flag = { readonly at: Point; readonly count: number };

/** Notes gathered into flags, in the order in which they come: those that lie close on what is seen are one. */
export function flagsOf(notes: readonly Note[], view: View, window: { width: number; height: number }): Flag[] {
  const flags: { at: Point; count: number }[] = [];
  const cells = new Map<string, { at: Point; count: number }[]>();
  const cellOf = (v: number): number => Math.floor(v / TOGETHER);
  for (const note of notes) {
    const p = toScreen(view, note.at);
    if (p.x < -BEYOND || p.y < -BEYOND || p.x > window.width + BEYOND || p.y > window.height + BEYOND) continue;
    const [cx, cy] = [cellOf(p.x), cellOf(p.y)];
    const around = [-1, 0, 1].flatMap((dy) => [-1, 0, 1].flatMap((dx) => cells.get(`${cx + dx} ${cy + dy}`) ?? []));
    const near = around.find((f) => Math.hypot(f.at.x - p.x, f.at.y - p.y) < TOGETHER);
    if (near) {
      near.count++;
      continue;
    }
    const flag = { at: p, count: 1 };
    flags.push(flag);
    const key = `${cx} ${cy}`;
    const cell = cells.get(key);
    if (cell) cell.push(flag);
    else cells.set(key, [flag]);
  }
  return flags.length > MOST ? flags.sort((a, b) => b.count - a.count).slice(0, MOST) : flags;
}

/** Small flags at the open notes, those that lie close gathered; the one that is visited says what it is. */
export function paintNotes(
  ctx: CanvasRenderingContext2D,
  view: View,
  checked: Checked,
  window: { width: number; height: number },
): void {
  ctx.save();
  const here = checked.open.find((n) => n.key === checked.note);
  const others = here ? checked.open.filter((n) => n !== here) : checked.open;
  for (const { at, count } of flagsOf(others, view, window)) {
    paintPin(ctx, at, '#fffefb');
    if (count > 1) paintCount(ctx, { x: at.x + 9, y: at.y - 15 }, count);
  }
  if (here) {
    const p = toScreen(view, here.at);
    paintPin(ctx, p, '#f4c20d');
    ctx.beginPath();
    ctx.arc(p.x, p.y, 13, 0, 2 * Math.PI);
    strokeHaloed(ctx, 1.6, BRICK);
    paintNote(ctx, { x: p.x + 18, y: p.y - 18 }, noteWords[here.kind].one);
  }
  ctx.restore();
}

/** A pin with its point on the place. */
function paintPin(ctx: CanvasRenderingContext2D, p: Point, fill: string): void {
  ctx.beginPath();
  ctx.moveTo(p.x, p.y);
  ctx.lineTo(p.x + 4, p.y - 12);
  ctx.lineTo(p.x + 13, p.y - 9);
  ctx.lineTo(p.x + 5, p.y - 5);
  ctx.fillStyle = fill;
  ctx.fill();
  ctx.lineWidth = 1.3;
  ctx.strokeStyle = BRICK;
  ctx.stroke();
}

/** How many notes a flag stands for. */
function paintCount(ctx: CanvasRenderingContext2D, at: Point, count: number): void {
  const words = count > 99 ? '99+' : `${count}`;
  ctx.font = '600 10px "Figtree Variable", sans-serif';
  const half = Math.max(8, ctx.measureText(words).width / 2 + 4);
  ctx.beginPath();
  ctx.roundRect(at.x - half, at.y - 8, 2 * half, 16, 8);
  ctx.fillStyle = BRICK;
  ctx.fill();
  ctx.fillStyle = '#fffefb';
  ctx.textAlign = 'center';
  ctx.textBaseline = 'middle';
  ctx.fillText(words, at.x, at.y + 0.5);
  ctx.textAlign = 'left';
}
