'use client';

import { CloseOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { useEffect } from 'react';
import { useBench, useBenchState } from '../benchContext';
import type { ReadingWhy } from '../state/store';

const SHOWN_MS = 8_000;

const readingWords: Record<ReadingWhy, string> = {
  'another tab': 'This drawing is open in another tab, so here it is for reading.',
  'putting aside':
    'The server would not have the last changes; they are being put aside. Until then this is for reading.',
  refused: 'Here the drawing is as you last saw it, for reading.',
  waiting: 'Changes from your last visit are still here and could not be sent yet, so this is for reading.',
};

/** What there is to tell, with the way out; above the tray, so that it never covers the page's middle. */
export function MessageBar({ takeOver, resume }: { takeOver: () => void; resume: () => void }) {
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
          {reading !== 'putting aside' && (
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
