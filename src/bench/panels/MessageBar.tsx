'use client';

import { CloseOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { useEffect } from 'react';
import { useBench, useBenchState } from '../benchContext';

const SHOWN_MS = 8_000;

/** What there is to tell, with the way out; above the tray, so that it never covers the page's middle. */
export function MessageBar({ takeOver }: { takeOver: () => void }) {
  const bench = useBench();
  const message = useBenchState((s) => s.message);
  const reading = useBenchState((s) => s.reading);
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
          This drawing is open in another tab, so here it is for reading.
          <Button size="small" onClick={takeOver}>
            Edit here instead
          </Button>
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
