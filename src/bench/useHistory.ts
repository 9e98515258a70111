import { useEffect, useState } from 'react';
import type { History } from '@/core/change/historyPoints';
import { useBenchState } from './benchContext';
import { drawingHistory } from './state/history';

/** So long nothing is to be saved before it is asked for anew, ms. */
const REST_MS = 1_500;

/** How the drawing came about, up to what was saved last; null until it is known. */
export function useHistory(): History | null {
  const id = useBenchState((s) => s.id);
  const revision = useBenchState((s) => (s.save.kind === 'saved' ? s.save.revision : null));
  const [known, setKnown] = useState<History | null>(null);
  useEffect(() => {
    if (revision === null) return;
    let isGone = false;
    const timer = setTimeout(
      () =>
        void drawingHistory(id).then(
          (h) => isGone || setKnown(h),
          () => undefined,
        ),
      known ? REST_MS : 0,
    );
    return () => {
      isGone = true;
      clearTimeout(timer);
    };
    // It is asked for when something was saved, not when an answer came.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [id, revision]);
  return known;
}
