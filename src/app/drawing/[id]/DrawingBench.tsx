'use client';

import dynamic from 'next/dynamic';
import { useEffect, useState } from 'react';
import { openAhead } from '@/bench/ahead';
import { askBench } from '@/bench/askBench';
import { takeAhead } from '@/bench/state/ahead';
import type { Sight } from '@/core/scene/sight';
import { Opening } from './Opening';

const BenchPage = dynamic(askBench, { ssr: false });

/** The bench is made in the browser alone; what takes longest to come is asked for before it. */
export function DrawingBench({ id, sight }: { id: string; sight: Sight | null }) {
  // Where the page comes as a whole, it has asked for the drawing by itself; from another page it is asked for right here.
  useState(() => openAhead(id));
  // What nobody took is old by the time that the page is come back to.
  useEffect(() => () => void takeAhead(id), [id]);
  return (
    <>
      <Opening id={id} sight={sight} />
      <BenchPage id={id} />
    </>
  );
}
