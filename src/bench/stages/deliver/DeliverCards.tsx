import { DeliverCard } from './DeliverCard';
import { HandCard } from './HandCard';
import { PackageCard } from './PackageCard';

/** What is saved, and what it took. */
export const DeliverCards = () => (
  <>
    <DeliverCard />
    <PackageCard />
    <HandCard />
  </>
);
