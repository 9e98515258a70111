'use client';

import { useMemo } from 'react';
import { firstStyle } from '@/core';
import { outlineData } from '@/core/formats/pathData';
import { bodyOf } from '@/core/ink/body';
import { nibs } from '@/core/ink/nibs';
import type { NibKind } from '@/core/drawing/nib';

/** A short wave drawn with a nib. */
export function NibSample({ kind }: { kind: NibKind }) {
  const data = useMemo(() => {
    const node = (x: number, y: number, dx: number, dy: number) => ({
      point: { x, y },
      in: { x: -dx, y: -dy },
      out: { x: dx, y: dy },
      kind: 'smooth' as const,
    });
    const run = { closed: false, nodes: [node(4, 18, 6, -14), node(24, 12, 7, 5), node(44, 6, 4, -2)] };
    return outlineData(
      bodyOf({ runs: [run], style: { ...firstStyle, width: 5, nib: nibs[kind].plain, seed: 3 } }, 0.05),
      2,
    );
  }, [kind]);
  return (
    <svg viewBox="0 0 48 24" width="48" height="24" aria-hidden="true">
      <path d={data} fill="currentColor" />
    </svg>
  );
}
