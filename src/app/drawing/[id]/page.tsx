'use client';

import dynamic from 'next/dynamic';
import { use } from 'react';

const BenchPage = dynamic(() => import('@/bench/BenchPage'), { ssr: false });

export default function DrawingPage({ params }: { params: Promise<{ id: string }> }) {
  return <BenchPage id={use(params).id} />;
}
