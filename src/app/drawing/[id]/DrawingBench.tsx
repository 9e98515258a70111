'use client';

import dynamic from 'next/dynamic';

const BenchPage = dynamic(() => import('@/bench/BenchPage'), { ssr: false });

/** The bench is made in the browser alone. */
export const DrawingBench = ({ id }: { id: string }) => <BenchPage id={id} />;
