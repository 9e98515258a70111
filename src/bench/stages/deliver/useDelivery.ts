import { useMemo } from 'react';
import { firstDelivery, type Delivery } from '@/core/deliver/delivery';
import { useBenchState, usePreference } from '../../benchContext';
import { chosenIds } from '../../state/chosen';
import { prefer } from '../../state/preferences';

/** What file is wanted: as it was chosen last in this browser, on any drawing; the resolution is at first the page's. */
export function useDelivery(): { wanted: Delivery; set: (some: Partial<Delivery>) => void } {
  const kept = usePreference('delivery');
  const dpi = useBenchState((s) => s.drawing.page.dpi);
  const lines = useBenchState((s) => s.lines);
  const flats = useBenchState((s) => s.flats);
  const wanted = useMemo((): Delivery => {
    // What an earlier program did not ask for yet is as it is at first.
    const { chosen: _, ...last } = { ...firstDelivery, dpi, ...kept };
    return last.scope === 'chosen' ? { ...last, chosen: chosenIds({ lines, flats }) } : last;
  }, [kept, dpi, lines, flats]);
  return { wanted, set: (some) => prefer({ delivery: { ...wanted, ...some, chosen: undefined } }) };
}
