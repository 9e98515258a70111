'use client';

import { Alert, App, Button } from 'antd';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useRef, useState } from 'react';
import { askBench } from '@/bench/askBench';
import { whenIdle } from '@/ui/whenIdle';
import { askJson, packageHref, sendPackage } from '@/bench/state/api';
import { forgetLastSeen } from '@/bench/state/lastSeen';
import { prefer, preferences } from '@/bench/state/preferences';
import { useStored } from '@/bench/useStored';
import type { DeedWithMany, DrawingCard as Card } from '@/server/drawings';
import { formatCount } from '@/ui/format';
import { quillMark } from '@/ui/signs';
import { Beginnings } from './Beginnings';
import { isChangesFile, openChangesFile } from './changesFile';
import { DrawingCard, type CardActions } from './DrawingCard';
import { FindBar } from './FindBar';
import { found } from './found';
import { ManyBar } from './ManyBar';
import { makeDrawing, makeFromPicture, makeFromSvg } from './newDrawing';
import { pickedAfter } from './picked';
import './home.css';

type Props = { drawings: Card[]; binned: Card[]; now: number; keptWell: boolean };

const isPackage = (name: string): boolean => /\.yquill$/i.test(name) || isChangesFile(name);

/** With fewer drawings than this there is room to say how the next one begins. */
const FEW = 8;

/** All drawings, and the ways to begin one. */
export function Home({ drawings, binned, now, keptWell }: Props) {
  const router = useRouter();
  const { message, notification } = App.useApp();
  const home = useRef<HTMLDivElement>(null);
  const [busy, setBusy] = useState(false);
  const [over, setOver] = useState(false);
  const [binOpen, setBinOpen] = useState(false);
  const [text, setText] = useState('');
  const order = useStored(preferences, (p) => p.homeOrder);
  const shown = found(binOpen ? binned : drawings, text, order);
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  const last = useRef<string | null>(null);
  // What is no longer shown is no longer picked.
  const those = shown.filter((c) => picked.has(c.id));
  const pick = (card: Card, through: boolean): void => {
    const ids = shown.map((c) => c.id);
    setPicked(pickedAfter(new Set(those.map((c) => c.id)), ids, card.id, last.current, through));
    last.current = card.id;
  };
  const isFindable = drawings.length > 1 || binned.length > 0;

  // What is opened next is a drawing: the bench for it comes while there is nothing else to do.
  useEffect(() => whenIdle(() => void askBench().catch(() => undefined)), []);

  const attempt = useCallback(
    async (work: () => Promise<void>): Promise<void> => {
      setBusy(true);
      try {
        await work();
      } catch (error) {
        void message.error({ content: error instanceof Error ? error.message : String(error), duration: 8 });
      } finally {
        setBusy(false);
      }
    },
    [message],
  );
  const begin = useCallback(
    (files: File[]) =>
      attempt(async () => {
        const made: string[] = [];
        for (const file of files) made.push((await makeFromPicture(file)).id);
        if (made.length === 1) router.push(`/drawing/${made[0]}`);
        else router.refresh();
      }),
    [attempt, router],
  );

  const beginFromSvg = (file: File) =>
    attempt(async () => {
      const { id, without } = await makeFromSvg(file);
      if (without.length > 0)
        void message.info({ content: `Brought in without what cannot be kept: ${without.join(', ')}.`, duration: 8 });
      router.push(`/drawing/${id}`);
    });

  const openPackages = useCallback(
    (files: File[]) =>
      attempt(async () => {
        const opened: string[] = [];
        const lost: string[] = [];
        for (const file of files) {
          if (isChangesFile(file.name)) {
            const { id, fitted, of } = await openChangesFile(file);
            opened.push(id);
            if (fitted < of) lost.push(`${formatCount(of - fitted, 'change')} of “${file.name}”`);
            continue;
          }
          const answer = await sendPackage(file);
          opened.push(...answer.drawings.map((d) => d.id));
          lost.push(...answer.lost);
        }
        if (lost.length > 0)
          void message.warning({
            content: `Not all could be read. Lost: ${lost.join('; ')}. The rest is here.`,
            duration: 0,
          });
        if (opened.length === 1 && lost.length === 0) router.push(`/drawing/${opened[0]}`);
        else {
          router.refresh();
          if (lost.length === 0) void message.success(`${formatCount(opened.length, 'drawing')} came in.`);
        }
      }),
    [attempt, message, router],
  );

  useEffect(() => {
    const paste = (e: ClipboardEvent): void => {
      const files = [...(e.clipboardData?.files ?? [])].filter((f) => f.type.startsWith('image/'));
      if (files.length > 0) void begin(files);
    };
    // Anywhere in the window: beside the cards a file that is let go of would be opened in place of the page.
    const over = (e: DragEvent): void => {
      if (!e.dataTransfer?.types.includes('Files')) return;
      e.preventDefault();
      setOver(true);
    };
    const leave = (e: DragEvent): void => void (e.relatedTarget === null && setOver(false));
    const drop = (e: DragEvent): void => {
      e.preventDefault();
      setOver(false);
      const files = [...(e.dataTransfer?.files ?? [])];
      const packages = files.filter((f) => isPackage(f.name));
      const others = files.filter((f) => !isPackage(f.name));
      if (packages.length > 0) void openPackages(packages);
      if (others.length > 0) void begin(others);
    };
    const heard = new AbortController();
    const { signal } = heard;
    window.addEventListener('paste', paste, { signal });
    window.addEventListener('dragover', over, { signal });
    window.addEventListener('dragleave', leave, { signal });
    window.addEventListener('drop', drop, { signal });
    // Told on the element, so that whoever looks from outside knows when the page hears.
    if (home.current) home.current.dataset.ready = 'true';
    return () => heard.abort();
  }, [begin, openPackages]);

  /** One deed with one card or many; what goes into the bin can be had back at once. */
  const withCards = (cards: readonly Card[], deed: DeedWithMany): Promise<void> =>
    attempt(async () => {
      const ids = cards.map((c) => c.id);
      await askJson('/api/drawings', 'PATCH', { ids, deed });
      if (deed === 'delete for good') forgetLastSeen(ids);
      setPicked(new Set());
      router.refresh();
      if (deed !== 'bin') return;
      const key = ids.join(' ');
      const what = cards.length === 1 ? `“${cards[0].title}” is` : `${formatCount(cards.length, 'drawing')} are`;
      notification.open({
        key,
        title: `${what} in the bin.`,
        placement: 'bottomLeft',
        actions: (
          <Button size="small" onClick={() => (notification.destroy(key), void withCards(cards, 'put back'))}>
            Undo
          </Button>
        ),
      });
    });
  const actions: CardActions = {
    rename: (card, title) =>
      attempt(async () => {
        await askJson(`/api/drawings/${card.id}`, 'PATCH', { title });
        router.refresh();
      }),
    run: (card, deed) => withCards([card], deed),
  };

  return (
    <div
      ref={home}
      onKeyDown={(e) => {
        if (e.key === 'Escape' && those.length > 0) setPicked(new Set());
      }}
      className={over ? 'home over' : 'home'}
    >
      <header>
        {quillMark}
        <div>
          <h1>Yellow Quill</h1>
          <p>Lay a picture under the work and trace it, line by line.</p>
        </div>
        <Beginnings
          busy={busy}
          fromPictures={(files) => void begin(files)}
          fromSvg={(file) => void beginFromSvg(file)}
          fromPackage={(file) => void openPackages([file])}
          blank={(page) =>
            void attempt(async () => router.push(`/drawing/${(await makeDrawing('Untitled', page)).id}`))
          }
        />
      </header>
      {!keptWell && (
        <Alert
          className="kept-badly"
          type="warning"
          showIcon
          title="Not all that is kept is as it was put there."
          action={<Link href="/keeping">What is wrong, and the ways back</Link>}
        />
      )}

      {isFindable && those.length > 0 && (
        <ManyBar
          count={those.length}
          packageHref={packageHref(those.map((c) => c.id))}
          shown={shown.length}
          inBin={binOpen}
          busy={busy}
          run={(deed) => void withCards(those, deed)}
          all={() => setPicked(new Set(shown.map((c) => c.id)))}
          none={() => setPicked(new Set())}
        />
      )}
      {isFindable && those.length === 0 && (
        <FindBar
          {...{ text, order, binOpen }}
          binned={binned.length}
          onText={setText}
          onOrder={(next) => prefer({ homeOrder: next })}
          onBin={setBinOpen}
        />
      )}
      {drawings.length === 0 && !binOpen ? (
        <main>
          <FirstStep />
        </main>
      ) : (
        <main>
          <ul
            className={those.length > 0 ? 'drawing-cards picking' : 'drawing-cards'}
            aria-label={binOpen ? 'Drawings in the bin' : 'Drawings'}
          >
            {shown.map((card) => (
              <DrawingCard
                key={card.id}
                card={card}
                now={now}
                actions={actions}
                inBin={binOpen}
                isPicked={picked.has(card.id)}
                onPick={pick}
              />
            ))}
            {!binOpen && text === '' && drawings.length < FEW && (
              <li className="drop-here">
                <b>Drop the next sketch or photo here</b>
                <span>anywhere on this page, or paste it</span>
              </li>
            )}
          </ul>
          {shown.length === 0 && (
            <p className="nothing-found">
              {text.trim() === ''
                ? 'The bin is empty.'
                : `No drawing${binOpen ? ' in the bin' : ''} has “${text.trim()}” in its title.`}
            </p>
          )}
        </main>
      )}
      <footer>
        <Link href="/keeping">Safe-keeping</Link>
      </footer>
    </div>
  );
}

/** What a stranger sees: the first step, and what comes of it. */
const FirstStep = () => (
  <section className="first-step">
    <h2>Drop a sketch or a photo anywhere here</h2>
    <p>Or paste one, or choose it with “New from a picture”. PNG, JPEG, WebP, GIF, TIFF, AVIF and SVG up to 60 MB.</p>
    <ol>
      <li>
        <b>It lies under the work,</b> dimmed and locked. Your file itself is never altered.
      </li>
      <li>
        <b>You trace it with the pen:</b> click for corners, press and drag for curves.
      </li>
      <li>
        <b>You save the lines</b> as SVG, PDF or a picture, without the one below.
      </li>
    </ol>
  </section>
);
