'use client';

import dynamic from 'next/dynamic';
import { useState } from 'react';
import { openAhead } from '@/bench/ahead';

// It is on its way before this component is; where it does not come, whoever shows it is told.
if (typeof window !== 'undefined') import('@/bench/BenchPage').catch(() => undefined);

const BenchPage = dynamic(() => import('@/bench/BenchPage'), { ssr: false });

/** The bench is made in the browser alone; what takes longest to come is asked for before it. */
export function DrawingBench({ id }: { id: string }) {
  useState(() => openAhead(id));
  return <BenchPage id={id} />;
}
