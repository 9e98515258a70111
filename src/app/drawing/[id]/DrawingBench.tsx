'use client';

import dynamic from 'next/dynamic';
import { useState } from 'react';
import { preload } from 'react-dom';
import { openAhead } from '@/bench/ahead';
import { packedUrl } from '@/bench/state/api';
import { Opening } from './Opening';

// It is on its way before this component is; where it does not come, whoever shows it is told.
if (typeof window !== 'undefined') import('@/bench/BenchPage').catch(() => undefined);

const BenchPage = dynamic(() => import('@/bench/BenchPage'), { ssr: false });

/** The bench is made in the browser alone; what takes longest to come is asked for before it. */
export function DrawingBench({ id }: { id: string }) {
  // Where the page comes as a whole, the drawing is asked for with it; from another page it is asked for right here.
  if (typeof window === 'undefined') preload(packedUrl(id), { as: 'fetch', crossOrigin: 'anonymous' });
  useState(() => openAhead(id));
  return (
    <>
      <Opening id={id} />
      <BenchPage id={id} />
    </>
  );
}
