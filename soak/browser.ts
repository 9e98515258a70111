import 'fake-indexeddb/auto';
import { setTimeout as wait } from 'node:timers/promises';
import { seeded } from '../src/core/seeded';
import { pendingOf } from '../src/bench/state/pending';
import { Line } from './line';
import { Tab, type Made } from './tab';
import type { FromBrowser, ToBrowser } from './messages';

/** A simulated browser, in a process of its own: the program's own keeping, over a store and a line that are its own. */

const [base, seed, ...drawings] = process.argv.slice(2);
const random = seeded(Number(seed));
const line = new Line(base, random);
globalThis.fetch = line.fetch as typeof fetch;
const made: Made = { changes: new Map(), stuck: new Set(), aside: line.notes.aside };
/** It works on its own drawings, and now and then on another's. */
const [own, others] = [drawings.slice(0, 2), drawings.slice(2)];
const touched = new Set<string>();
const tabs = new Map<string, Tab>();
let ends = false;
let lastTrouble = '';

const send = (message: FromBrowser): void => void process.send!(message);

async function tryOpen(tab: Tab): Promise<boolean> {
  try {
    await tab.open();
    lastTrouble = '';
    return true;
  } catch (error) {
    lastTrouble = (error as Error).message;
    await wait(200 + random() * 300);
    return false;
  }
}

function tabOn(id: string): Tab {
  touched.add(id);
  let tab = tabs.get(id);
  if (!tab) tabs.set(id, (tab = new Tab(id, made, random)));
  return tab;
}

async function work(): Promise<void> {
  while (!ends) {
    for (const id of own) {
      const tab = tabOn(id);
      if (tab.mustReopen) await tryOpen(tab);
      else for (let n = Math.floor(random() * 4); n >= 0; n--) tab.act();
    }
    if (random() < 0.02 && others.length > 0) await visit(others[Math.floor(random() * others.length)]);
    await wait(20 + random() * 80);
  }
}

/** Someone else's drawing is opened, drawn on a little, and closed with or without waiting. */
async function visit(id: string): Promise<void> {
  const tab = tabOn(id);
  if (!(await tryOpen(tab))) return;
  for (let n = 1 + Math.floor(random() * 5); n > 0; n--) tab.act();
  await wait(random() * 400);
  tab.leave();
}

async function finish(): Promise<void> {
  ends = true;
  line.isCut = false;
  await working;
  const done = new Set<string>();
  for (let id: string | undefined; (id = [...touched, ...line.asides].find((i) => !done.has(i)));) {
    done.add(id);
    const tab = tabOn(id);
    for (let tries = 0; ; tries++) {
      // The first looks, the second finds nothing more to be done.
      if ((await tryOpen(tab)) && (await tryOpen(tab)) && (await isSettled(id))) break;
      // One that was put aside may be gone with a backup that was put back.
      if (line.asides.has(id) && lastTrouble.includes('no such drawing')) break;
      if (tries > 60) throw new Error(`${id} does not settle: ${lastTrouble} ${line.trouble}`);
    }
    tab.leave();
  }
  send({
    kind: 'ended',
    made: [...made.changes.values()],
    acknowledged: [...line.notes.acknowledged],
    aside: [...made.aside].map(([change, asides]) => [change, [...asides]] as const),
    stuck: [...made.stuck],
  });
}

const isSettled = async (id: string): Promise<boolean> =>
  (await pendingOf(id)).every((p) => p.pending.stuck !== undefined);

process.on('message', (message: ToBrowser) => {
  if (message.kind === 'cut') line.isCut = message.on;
  else if (message.kind === 'take over') takeOver();
  else finish().catch((error: Error) => send({ kind: 'failed', why: error.stack ?? error.message }));
});

/** A second tab takes a drawing over from the first, which may still be sending. */
function takeOver(): void {
  const id = own[Math.floor(random() * own.length)];
  tabs.get(id)?.onlyRead();
  tabs.set(id, new Tab(id, made, random));
}

const working = work();
working.catch((error: Error) => send({ kind: 'failed', why: error.stack ?? error.message }));
