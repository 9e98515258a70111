'use client';

import { ArrangeCard } from './ArrangeCard';
import { TransformCard } from './TransformCard';

/** What is set of whole lines: where they are, how large, and how they lie among the others. */
export const SelectCards = () => (
  <>
    <TransformCard />
    <ArrangeCard />
  </>
);
