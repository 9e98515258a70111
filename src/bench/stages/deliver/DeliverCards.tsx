import { DeliverCard } from './DeliverCard';
import { HandCard } from './HandCard';

/** What is saved, and what it took. */
export const DeliverCards = () => (
  <>
    <DeliverCard />
    <HandCard />
  </>
);
