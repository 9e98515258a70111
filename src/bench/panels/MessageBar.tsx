'use client';

import { CloseOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { useRouter } from 'next/navigation';
import { useEffect } from 'react';
import { useBench, useBenchState } from '../benchContext';
import { copyAt, journalUrl } from '../state/api';
import type { ReadingWhy } from '../state/store';
import type { Exits } from '../useSession';

/** What can be done with a drawing of which only the first part can be read. */
function DamageButtons({ damaged }: { damaged: NonNullable<Exits['damaged']> }) {
  const bench = useBench();
  const router = useRouter();
  const { id } = bench.getState();
  const goOn = (): void =>
    void copyAt(id, damaged.from - 1)
      .then((copy) => router.push(`/drawing/${copy.id}`))
      .catch((e: Error) => bench.tell(e.message, undefined, 'warning'));
  return (
    <>
      <Button size="small" onClick={goOn}>
        Go on from here as a copy
      </Button>
      <Button size="small" href={journalUrl(id, damaged.from)} title={damaged.why}>
        Save what came after
      </Button>
    </>
  );
}

/** What can be done where the server lacks changes that this browser still has. */
function WentBackButtons({ giveAgain }: Pick<Exits, 'giveAgain'>) {
  return (
    <>
      <Button size="small" type="primary" onClick={() => giveAgain(true)}>
        Give them again
      </Button>
      <Button size="small" onClick={() => giveAgain(false)}>
        Keep them as a drawing of their own
      </Button>
    </>
  );
}

const SHOWN_MS = 8_000;

const readingWords: Record<ReadingWhy, string> = {
  'another tab': 'This drawing is open in another tab, so here it is for reading.',
  'putting aside':
    'The server would not have the last changes; they are being put aside. Until then this is for reading.',
  damaged: 'A part of this drawing’s journal cannot be read. Here it is as it was before that, for reading.',
  refused: 'Here the drawing is as you last saw it, for reading.',
  'went back':
    'The server has gone back: changes that it had saved are gone from it. This browser still has them; until you say what is to be done with them this is for reading.',
  waiting: 'Changes from your last visit are still here and could not be sent yet, so this is for reading.',
};

/** What there is to tell, with the way out; above the tray, so that it never covers the page's middle. */
export function MessageBar({ takeOver, resume, giveAgain, damaged }: Exits) {
  const bench = useBench();
  const message = useBenchState((s) => s.message);
  const reading = useBenchState((s) => (s.reading ? s.readingWhy : null));
  useEffect(() => {
    if (!message || (message.tone === 'warning' && message.action)) return;
    const timer = setTimeout(() => bench.getState().message === message && bench.setState({ message: null }), SHOWN_MS);
    return () => clearTimeout(timer);
  }, [bench, message]);

  const close = (): void => bench.setState({ message: null });
  return (
    <>
      {reading && (
        <div className="message reading" role="status">
          {readingWords[reading]}
          {reading === 'damaged' && damaged && <DamageButtons damaged={damaged} />}
          {reading === 'went back' && <WentBackButtons giveAgain={giveAgain} />}
          {reading !== 'putting aside' && reading !== 'damaged' && reading !== 'went back' && (
            <Button size="small" onClick={reading === 'another tab' ? takeOver : resume}>
              {reading === 'another tab'
                ? 'Edit here instead'
                : reading === 'waiting'
                  ? 'Try again'
                  : 'Go on from the newest'}
            </Button>
          )}
        </div>
      )}
      {message && (
        <div key={message.key} className={`message ${message.tone}`} role="alert">
          {message.text}
          {message.action && (
            <Button
              size="small"
              onClick={() => {
                close();
                message.action!.run();
              }}
            >
              {message.action.label}
            </Button>
          )}
          <Button size="small" type="text" icon={<CloseOutlined />} aria-label="Close this message" onClick={close} />
        </div>
      )}
    </>
  );
}
