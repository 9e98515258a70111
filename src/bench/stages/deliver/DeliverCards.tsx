'use client';

import { Segmented } from 'antd';
import { usePreference } from '../../benchContext';
import { prefer } from '../../state/preferences';
import { DeliverCard } from './DeliverCard';
import { HandCard } from './HandCard';
import { HandInCard } from './HandInCard';
import { MotionCard } from './MotionCard';
import { OrderCard } from './OrderCard';
import { PackageCard } from './PackageCard';
import { ReadyCard } from './ReadyCard';
import { ReplayCard } from './ReplayCard';

const views = [
  { value: 'ready', label: 'Ready?' },
  { value: 'order', label: 'Order' },
  { value: 'file', label: 'File' },
  { value: 'hand in', label: 'Hand in' },
] as const;

/** One side of the delivery at a time: what is left to do, the order of lines, files, and handing them in. */
export function DeliverCards() {
  const view = usePreference('deliverCards');
  return (
    <>
      <Segmented
        block
        size="small"
        className="four-views"
        aria-label="What the cards show"
        value={view}
        options={[...views]}
        onChange={(v) => prefer({ deliverCards: v })}
      />
      {view === 'ready' && (
        <>
          <ReadyCard />
          <HandCard />
        </>
      )}
      {view === 'order' && (
        <>
          <ReplayCard />
          <OrderCard />
          <MotionCard />
        </>
      )}
      {view === 'hand in' && <HandInCard />}
      {view === 'file' && (
        <>
          <DeliverCard />
          <PackageCard />
        </>
      )}
    </>
  );
}
