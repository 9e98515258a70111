'use client';

import { useEffect, useState } from 'react';
import { ApiError, askJson, changesBefore, type Opened } from './state/api';
import { bringAsidesBack } from './state/asides';
import { startChecking } from './state/checkingOf';
import { startFollowing } from './state/followingElsewhere';
import { startHandRecord } from './state/handRecord';
import { enter } from './state/oneTab';
import { bytesOf, openDrawing } from './state/opening';
import { keepSeen } from './state/pending';
import { tellAside, tellAsideBack, tellBroughtBack, tellRecovered, tellStuck, type Go } from './keptChanges';
import { recoverPending, Saver, type SaveListener } from './state/saver';
import { reconciled } from './state/reconciled';
import { loadSession, storeSession } from './state/session';
import { createBench, type Bench } from './state/store';
import { giveAgain as sendAgain, lookBack, type WentBack } from './state/wentBack';
import { askPicturesAhead } from './canvas/plainPictures';
import { whenIdle } from '@/ui/whenIdle';
import { desk } from './stages/desk';
import { isStage, stageOf } from './stages/table';
import { toolsOf } from './tools/registry';

export type Session =
  | { state: 'opening' }
  | { state: 'failed'; why: string; missing: boolean; again: () => void }
  | ({ state: 'open'; bench: Bench } & Exits);

/** The ways out while a drawing is only read. */
export type Exits = {
  takeOver: () => void;
  resume: () => void;
  /** Gives the server what it lacks: to this drawing, or as a drawing of its own. */
  giveAgain: (asOne: boolean) => void;
  damaged: Opened['damaged'] | null;
};

/** Opens a drawing: recovers what an earlier visit left, loads it, and keeps saving until the page is left. */
export function useSession(id: string, go: (path: string) => void): Session {
  const [session, setSession] = useState<Session>({ state: 'opening' });
  const [attempt, setAttempt] = useState(0);

  useEffect(() => {
    let left = false;
    const leave: (() => void)[] = [];
    const again = () => {
      setSession({ state: 'opening' });
      setAttempt((n) => n + 1);
    };
    open(id, go, leave)
      .then((opened) => (left ? leave.forEach((f) => f()) : setSession(opened)))
      .catch((error: unknown) => {
        if (left) return;
        const missing = error instanceof ApiError && (error.status === 404 || error.status === 410);
        setSession({ state: 'failed', why: error instanceof Error ? error.message : String(error), missing, again });
      });
    return () => {
      left = true;
      leave.forEach((f) => f());
    };
  }, [id, go, attempt]);

  return session;
}

async function open(id: string, go: Go, leave: (() => void)[]): Promise<Session> {
  // What waits here is not to be thrown away by a browser that wants room.
  void navigator.storage?.persist?.().catch(() => undefined);
  // Most often nothing waits here: what was asked for ahead is the newest then, and is read meanwhile.
  const ahead = openDrawing(id, true);
  ahead.catch(() => undefined);
  const recovered = await recoverPending(id);
  const opened = await (recovered.kind === 'none' ? ahead : openDrawing(id));
  const last = loadSession(id);
  if (last.view) askPicturesAhead(opened.drawing, last.view.scale * devicePixelRatio);
  const stage = isStage(opened.stage) ? opened.stage : 'trace';
  const bench = createBench({ ...opened, stage }, desk);
  const start = last.stage && isStage(last.stage) ? last.stage : stage;
  bench.setState({
    stage: start,
    tool: last.tool && toolsOf(start).includes(last.tool) ? last.tool : stageOf(start).first,
    rulers: last.rulers === true,
    mirror: last.mirror ?? null,
    ...(last.view ? { view: last.view } : {}),
    ...(opened.drawing.sheets.some((s) => s.id === last.sheet) ? { sheet: last.sheet! } : {}),
  });
  tellRecovered(bench, recovered, go);
  recallHistory(bench, opened);
  /** As long as it cannot be told whether the server has all that it had, nothing is built on it. */
  const unsure = { reading: true, readingWhy: 'waiting', preview: null } as const;
  /** What the server lacks of what it had. */
  let back: WentBack | null = null;
  const lookForLost = async (now: Opened, isBehind: boolean): Promise<void> => {
    if (now.damaged) return;
    back = await lookBack(id, now, isBehind);
    if (back) bench.setState({ reading: true, readingWhy: 'went back', preview: null });
    else remember(now);
  };
  await lookForLost(opened, recovered.kind === 'went back').catch(() => bench.setState(unsure));
  void bringAsidesBack(id).then(
    (asides) => asides.forEach((aside) => tellAsideBack(bench, aside, go)),
    () => undefined,
  );
  if (opened.damaged) bench.setState({ reading: true, readingWhy: 'damaged' });

  const announce = (revision: number): void => tenancy.announce(revision);
  let saver = startSaver(bench, id, go, opened, { announce, onWentBack: () => onWentBack() });
  leave.push(
    () => saver.stop(),
    bench.onChange(({ change }) => saver.push(change)),
  );

  /** Whether this is the tab that edits. */
  let holds = false;
  const reload = async (): Promise<Opened> => {
    const newest = await openDrawing(id);
    bench.setState((s) => ({
      ...reconciled(s, newest.drawing),
      drawing: newest.drawing,
      title: newest.title,
      preview: null,
    }));
    recallHistory(bench, newest);
    saver.stop();
    saver = startSaver(bench, id, go, newest, { announce, onWentBack: () => onWentBack() });
    bench.setState({ save: { kind: 'saved', revision: newest.revision } });
    return newest;
  };
  /** Goes on editing from the newest state, once what was left here is dealt with. */
  const resume = async (): Promise<void> => {
    const left = await recoverPending(id);
    const newest = await reload();
    await lookForLost(newest, left.kind === 'went back');
    const { damaged } = newest;
    if (!back) bench.setState({ reading: !holds || !!damaged, readingWhy: damaged ? 'damaged' : 'another tab' });
    tellRecovered(bench, left, go);
  };
  const giveAgain = async (asOne: boolean): Promise<void> => {
    const { revision } = await openDrawing(id);
    const lost = back;
    if (!lost) return resume();
    const brought = await sendAgain(id, lost, asOne && revision === lost.revision);
    back = null;
    await resume();
    tellBroughtBack(bench, brought, go);
  };
  const orTell = (deed: Promise<void>): void =>
    void deed.catch((e: Error) => bench.tell(`${e.message} Nothing was lost.`, undefined, 'warning'));
  const onWentBack = (): void => {
    bench.setState({ reading: true, readingWhy: 'refused', preview: null });
    orTell(openDrawing(id).then((now) => lookForLost(now, true)));
  };
  const resumeOrTell = (): void => orTell(resume());
  const tenancy = enter(id, {
    // The tab that had it may still have been sending: what it kept is sent first.
    onEditing: () => {
      holds = true;
      const { reading, readingWhy } = bench.getState();
      if (reading && readingWhy === 'another tab') resumeOrTell();
    },
    onReading: () => {
      holds = false;
      bench.settle();
      void saver.handOver();
      // What else it is only read for goes before.
      if (!bench.getState().reading) bench.setState({ reading: true, readingWhy: 'another tab', preview: null });
    },
    onNews: () => {
      const { reading, readingWhy } = bench.getState();
      if (reading && readingWhy === 'another tab') void reload().catch(() => undefined);
    },
  });
  const ask = (e: BeforeUnloadEvent): void => {
    if (saver.waiting > 0) e.preventDefault();
  };
  window.addEventListener('beforeunload', ask);
  leave.push(
    () => window.removeEventListener('beforeunload', ask),
    () => tenancy.release(),
    rememberPlace(bench, id),
    startChecking(bench),
    startFollowing(bench),
    startHandRecord(bench, id),
  );
  return {
    state: 'open',
    bench,
    takeOver: tenancy.takeOver,
    resume: resumeOrTell,
    giveAgain: (asOne) => orTell(giveAgain(asOne)),
    damaged: opened.damaged ?? null,
  };
}

/** This browser keeps what it has seen, in case that all else is lost. */
function remember({ id, revision, drawing, damaged }: Opened): void {
  const bytes = damaged ? undefined : bytesOf(drawing);
  if (!bytes) return;
  const seen = { drawing: id, revision, bytes, at: Date.now() };
  whenIdle(() => void keepSeen(seen).catch(() => undefined));
}

/** What was done before this visit can be undone as well; the newest of it is read at once. */
function recallHistory(bench: Bench, { id, revision }: Opened): void {
  bench.recallFrom(revision, (before) => changesBefore(id, before));
  void bench.recall();
}

type Heard = { announce: (revision: number) => void; onWentBack: () => void };

function startSaver(
  bench: Bench,
  id: string,
  go: Go,
  { revision, last }: Opened,
  { announce, onWentBack }: Heard,
): Saver {
  const listener: SaveListener = {
    onState: (save) => {
      const before = bench.getState().save;
      bench.setState({ save });
      const why = save.kind === 'waiting' ? save.why : undefined;
      if (why && !(before.kind === 'waiting' && before.why === why))
        bench.tell(`Not saved yet: ${why} What you do is kept in this browser and sent later.`, undefined, 'warning');
      if (save.kind === 'saved') announce(save.revision);
    },
    onWentBack,
    onRefused: () => bench.setState({ reading: true, readingWhy: 'putting aside', preview: null }),
    onAside: (aside) => {
      bench.setState({ readingWhy: 'refused' });
      tellAside(bench, aside, 'This drawing was changed elsewhere.', go);
    },
    onStuck: (stuck) => {
      bench.setState({ readingWhy: 'refused' });
      tellStuck(bench, stuck);
    },
  };
  return new Saver(id, revision, listener, last);
}

/** What is remembered of where a person is. */
const kept = ['view', 'window', 'stage', 'tool', 'sheet', 'rulers', 'mirror'] as const;

/** Remembers where the person is; the stage is on the drawing's card too. */
function rememberPlace(bench: Bench, id: string): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const store = (): void => {
    const { view, window: size, stage, tool, sheet, rulers, mirror } = bench.getState();
    storeSession(id, { view, window: size, stage, tool, sheet, rulers, mirror });
  };
  const stop = bench.subscribe((s, before) => {
    if (s.stage !== before.stage)
      void askJson(`/api/drawings/${id}`, 'PATCH', { stage: s.stage }).catch(() => undefined);
    if (kept.every((k) => s[k] === before[k])) return;
    clearTimeout(timer);
    timer = setTimeout(store, 200);
  });
  window.addEventListener('pagehide', store);
  return () => {
    stop();
    clearTimeout(timer);
    store();
    window.removeEventListener('pagehide', store);
  };
}
