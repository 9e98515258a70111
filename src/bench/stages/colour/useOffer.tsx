'use client';

import { Button } from 'antd';
import { useEffect, useRef, useState, type ReactElement } from 'react';
import type { Drawing } from '@/core';
import type { Edit } from '@/core/change/edit';
import { useBench, useBenchState } from '../../benchContext';
import { HoldButton, shown } from '../../panels/HoldButton';

/** Something that is shown on the page, and not yet in the drawing. */
type Offer<T> = T & { readonly edit: Edit; readonly of: Drawing };

type Offering<T> = {
  /** What is offered for the drawing as it is; null where nothing is. */
  readonly offer: Offer<T> | null;
  /** Shows what is found; null shows the drawing as it is. */
  make(found: (T & { readonly edit: Edit }) | null): void;
  /** Takes it or leaves it; before that, how it is without. */
  buttons(take: string): ReactElement;
};

/** What takes a while to find is shown first, then taken or left. It goes with the card, and with any other change. */
export function useOffer<T extends object>(): Offering<T> {
  const bench = useBench();
  const drawing = useBenchState((s) => s.drawing);
  const [kept, keep] = useState<Offer<T> | null>(null);
  const last = useRef(kept);
  useEffect(() => {
    last.current = kept;
  }, [kept]);
  useEffect(() => () => void (last.current && bench.show(null)), [bench]);
  const offer = kept?.of === drawing ? kept : null;
  const end = (take: boolean): void => {
    if (take && offer) bench.commit(offer.edit);
    else bench.show(null);
    keep(null);
  };
  return {
    offer,
    make(found) {
      keep(found && { ...found, of: bench.getState().drawing });
      bench.show(found?.edit ?? null);
    },
    buttons: (take) => (
      <div className="row">
        <Button size="small" type="primary" onClick={() => end(true)}>
          {take}
        </Button>
        <HoldButton className="chip" label="Hold to see it as it is" {...shown('uncorrected')}>
          before
        </HoldButton>
        <Button size="small" onClick={() => end(false)}>
          Leave it
        </Button>
      </div>
    ),
  };
}
