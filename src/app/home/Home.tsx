'use client';

import { FileAddOutlined, PictureOutlined } from '@ant-design/icons';
import { App, Button, Dropdown, Upload } from 'antd';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useRef, useState } from 'react';
import { PICTURE_TYPES } from '@/bench/commands/desk';
import { ask, askJson } from '@/bench/state/api';
import { prefer, preferences } from '@/bench/state/preferences';
import { useStored } from '@/bench/useStored';
import type { DrawingCard as Card } from '@/server/drawings';
import { quillMark } from '@/ui/signs';
import { DrawingCard, type CardActions } from './DrawingCard';
import { FindBar } from './FindBar';
import { found } from './found';
import { makeDrawing, makeFromPicture, pages } from './newDrawing';
import './home.css';

type Props = { drawings: Card[]; binned: Card[]; now: number };

/** All drawings, and the ways to begin one. */
export function Home({ drawings, binned, now }: Props) {
  const router = useRouter();
  const { message, notification } = App.useApp();
  const home = useRef<HTMLDivElement>(null);
  const [busy, setBusy] = useState(false);
  const [over, setOver] = useState(false);
  const [binOpen, setBinOpen] = useState(false);
  const [text, setText] = useState('');
  const order = useStored(preferences, (p) => p.homeOrder);
  const shown = found(binOpen ? binned : drawings, text, order);
  const isFindable = drawings.length > 1 || binned.length > 0;

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

  useEffect(() => {
    const paste = (e: ClipboardEvent): void => {
      const files = [...(e.clipboardData?.files ?? [])].filter((f) => f.type.startsWith('image/'));
      if (files.length > 0) void begin(files);
    };
    window.addEventListener('paste', paste);
    // Told on the element, so that whoever looks from outside knows when the page hears.
    if (home.current) home.current.dataset.ready = 'true';
    return () => window.removeEventListener('paste', paste);
  }, [begin]);

  const actions: CardActions = {
    rename: (card, title) =>
      attempt(async () => {
        await askJson(`/api/drawings/${card.id}`, 'PATCH', { title });
        router.refresh();
      }),
    duplicate: (card) =>
      attempt(async () => {
        await ask(`/api/drawings/${card.id}/duplicate`, { method: 'POST' });
        router.refresh();
      }),
    bin: (card) =>
      attempt(async () => {
        await ask(`/api/drawings/${card.id}`, { method: 'DELETE' });
        router.refresh();
        const key = card.id;
        notification.open({
          key,
          title: `“${card.title}” is in the bin.`,
          placement: 'bottomLeft',
          actions: (
            <Button size="small" onClick={() => (notification.destroy(key), void actions.putBack(card))}>
              Undo
            </Button>
          ),
        });
      }),
    putBack: (card) =>
      attempt(async () => {
        await ask(`/api/drawings/${card.id}/unbin`, { method: 'POST' });
        router.refresh();
      }),
    deleteForGood: (card) =>
      attempt(async () => {
        await ask(`/api/drawings/${card.id}?forever=1`, { method: 'DELETE' });
        router.refresh();
      }),
  };

  return (
    <div
      ref={home}
      className={over ? 'home over' : 'home'}
      onDragOver={(e) => {
        if (!e.dataTransfer.types.includes('Files')) return;
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={(e) => e.currentTarget === e.target && setOver(false)}
      onDrop={(e) => {
        e.preventDefault();
        setOver(false);
        if (e.dataTransfer.files.length > 0) void begin([...e.dataTransfer.files]);
      }}
    >
      <header>
        {quillMark}
        <div>
          <h1>Yellow Quill</h1>
          <p>Lay a picture under the work and trace it, line by line.</p>
        </div>
        <div className="begin">
          <Upload
            accept={PICTURE_TYPES}
            multiple
            showUploadList={false}
            disabled={busy}
            beforeUpload={(file) => (void begin([file]), false)}
          >
            <Button type="primary" size="large" icon={<PictureOutlined />} loading={busy}>
              New from a picture
            </Button>
          </Upload>
          <Dropdown
            trigger={['click']}
            menu={{
              items: Object.entries(pages).map(([key, { label }]) => ({ key, label })),
              onClick: ({ key }) =>
                attempt(async () => router.push(`/drawing/${(await makeDrawing('Untitled', pages[key].page)).id}`)),
            }}
          >
            <Button size="large" icon={<FileAddOutlined />} disabled={busy}>
              Blank page
            </Button>
          </Dropdown>
        </div>
      </header>

      {isFindable && (
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
          <ul className="drawing-cards" aria-label={binOpen ? 'Drawings in the bin' : 'Drawings'}>
            {shown.map((card) => (
              <DrawingCard key={card.id} card={card} now={now} actions={actions} inBin={binOpen} />
            ))}
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
        <b>You save the lines</b> as SVG or PNG, without the picture.
      </li>
    </ol>
  </section>
);
