import { statSync } from 'node:fs';
import path from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { Program } from '../e2e/program';
import { applyChange, type Drawing } from '../src/core';
import { changeOf } from '../src/core/change/changeOf';
import { moveLines } from '../src/core/edits/lines';
import { allLines } from '../src/core/drawing/items';
import { closeDatabase } from '../src/server/database';
import { keepDrawing } from '../src/server/drawings';
import { inFreshFolder } from './inFreshFolder';
import * as scene from './scene';
import { summary, type Summary } from './statistics';

const EVERY_MS = 200;

type Load = Summary & { memoryMb: number[]; databaseMb: number };

/**
 * How long changes wait to be acknowledged where so many drawings are edited at once, five times a second each, while files are
 * made beside; ms. The server's memory at the beginning, in the midst and at the end.
 */
export function load(drawings: number, seconds: number): Promise<Load> {
  return inFreshFolder((place) => loadIn(place, drawings, seconds));
}

async function loadIn(place: string, drawings: number, seconds: number): Promise<Load> {
  const ids = Array.from({ length: drawings }, (_, i) => keepDrawing(`Load ${i}`, scene.drawing(null, 200)).id);
  const drawing = scene.drawing(null, 200);
  closeDatabase();
  const program = new Program(place);
  try {
    await program.start();
    const until = performance.now() + seconds * 1_000;
    const waits: number[] = [];
    const memoryMb: number[] = [];
    const look = async (): Promise<void> => {
      const { memory } = (await (await fetch(`${program.base}/api/health`)).json()) as { memory: number };
      memoryMb.push(Math.round(memory / 1e6));
    };
    const files = (async () => {
      for (let i = 0; performance.now() < until; i++) {
        const format = ['svg', 'pdf', 'png'][i % 3];
        await (
          await fetch(`${program.base}/api/drawings/${ids[i % ids.length]}/export?format=${format}&dpi=150`)
        ).arrayBuffer();
        if (i % 20 === 0) await look();
        await wait(500);
      }
    })();
    await Promise.all([files, ...ids.map((id, i) => hand(program.base, id, drawing, i, until, waits))]);
    await look();
    const databaseMb = Math.round(statSync(path.join(place, 'yellow-quill.sqlite')).size / 1e5) / 10;
    return { ...summary(waits), memoryMb: [memoryMb[0], memoryMb[memoryMb.length >> 1], memoryMb.at(-1)!], databaseMb };
  } finally {
    await program.stop('SIGKILL');
  }
}

async function hand(
  base: string,
  id: string,
  start: Drawing,
  n: number,
  until: number,
  waits: number[],
): Promise<void> {
  await wait((n * EVERY_MS) / 50);
  let drawing = start;
  const [line] = allLines(drawing);
  for (let revision = 0; performance.now() < until; revision++) {
    const due = performance.now() + EVERY_MS;
    const change = changeOf(moveLines(drawing, [line.id], { x: revision % 2 === 0 ? 3 : -3, y: 0 }), `c${revision}`);
    drawing = applyChange(drawing, change);
    const body = JSON.stringify({ base: revision, changes: [change] });
    const sent = performance.now();
    const response = await fetch(`${base}/api/drawings/${id}/changes`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body,
    });
    if (!response.ok) throw new Error(await response.text());
    await response.json();
    waits.push(performance.now() - sent);
    await wait(Math.max(0, due - performance.now()));
  }
}
