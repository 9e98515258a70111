import { statSync } from 'node:fs';
import { setTimeout as wait } from 'node:timers/promises';
import { applyChange, type Change } from '../src/core';
import { changeOf } from '../src/core/change/changeOf';
import { allLines } from '../src/core/drawing/items';
import { moveNodes } from '../src/core/edits/nodes';
import { appendChanges } from '../src/server/append';
import { database } from '../src/server/database';
import { keepDrawing } from '../src/server/drawings';
import { forgetAll, stateOf } from '../src/server/journal';
import { databaseFile } from '../src/server/keeping/places';
import { snapshotsTaken } from '../src/server/snapshots';
import { inFreshFolder } from './inFreshFolder';
import * as scene from './scene';
import { summary, type Summary } from './statistics';

const LINES = 10_000;
const AT_ONCE = 50;
/** After so many a hand rests, for ms: that is when snapshots are taken. */
const REST = { every: 2_000, for: 2_500 };

type History = { lines: number; changes: number; diskMb: number; openBefore: Summary; openAfter: Summary };

/** A very long history of small edits: what it adds to the disk, and how long the server takes to read the drawing anew, ms. */
export function manyChanges(changes: number): Promise<History> {
  return inFreshFolder((folder) => manyChangesIn(folder, changes));
}

async function manyChangesIn(folder: string, changes: number): Promise<History> {
  let drawing = scene.drawing(null, LINES);
  const { id } = keepDrawing('Long', drawing);
  const size = (): number => {
    database().$client.pragma('wal_checkpoint(TRUNCATE)');
    return statSync(databaseFile(folder)).size;
  };
  const begun = size();
  const openBefore = openings(id);
  const lines = allLines(drawing);
  for (let at = 0; at < changes; at += AT_ONCE) {
    const batch: Change[] = [];
    for (let i = at; i < at + AT_ONCE; i++) {
      const node = { line: lines[(i * 7) % LINES].id, run: 0, node: i % 5 };
      const change = changeOf(moveNodes(drawing, [node], { x: 1 + (i % 3), y: 1 }), `c${i}`);
      drawing = applyChange(drawing, change);
      batch.push(change);
    }
    appendChanges(id, at, batch);
    if ((at + AT_ONCE) % REST.every === 0) await wait(REST.for);
    await snapshotsTaken();
  }
  const diskMb = Math.round((size() - begun) / 1e5) / 10;
  return { lines: LINES, changes, diskMb, openBefore, openAfter: openings(id) };
}

function openings(id: string): Summary {
  const found: number[] = [];
  for (let i = 0; i < 7; i++) {
    forgetAll();
    const start = performance.now();
    stateOf(id);
    found.push(performance.now() - start);
  }
  return summary(found);
}
