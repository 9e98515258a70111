'use client';

import { Alert, Button } from 'antd';
import { useEffect, type ReactNode } from 'react';
import { ErrorBoundary, type FallbackProps } from 'react-error-boundary';
import { useBench } from '../benchContext';

type Part = {
  /** Names it, as the beginning of a sentence. */
  what: string;
  /** Where it stands, if it is not inside of another part: a row of the desk's grid, or over the page. */
  at?: 'top' | 'tray' | 'over-page';
};

/**
 * A part of the desk that fails alone: the page, the hand and the saving go on without it. It is tried again with the next
 * change of what it shows, an undo say.
 */
export const FailsAlone = ({ children, ...part }: Part & { children: ReactNode }) => (
  <ErrorBoundary fallbackRender={(failure) => <Failed {...part} {...failure} />}>{children}</ErrorBoundary>
);

function Failed({ what, at, error, resetErrorBoundary: again }: Part & FallbackProps) {
  const bench = useBench();
  useEffect(
    () =>
      bench.subscribe((s, before) => {
        if (s.drawing !== before.drawing || s.stage !== before.stage || s.lines !== before.lines) again();
      }),
    [bench, again],
  );
  return (
    <Alert
      className={`failed-part ${at ?? ''}`}
      type="warning"
      title={`${what} cannot be shown just now`}
      description={
        <>
          <p>
            The drawing is as it was, and the page goes on. ({error instanceof Error ? error.message : String(error)})
          </p>
          <Button size="small" onClick={again}>
            Show again
          </Button>
        </>
      }
    />
  );
}
