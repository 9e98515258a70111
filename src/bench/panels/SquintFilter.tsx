'use client';

import { useMemo } from 'react';
import { stepOfTone, toneOf, toneOfStep, withTone } from '@/core/colour/tone';
import { usePreference } from '../benchContext';

/** So many greys are told apart before they are brought down to a few. */
const FINE = 128;

/** The filter through which the page is seen squinting: softened, in grey, in so many even steps of tone (SVG 1.1, 15). */
export function SquintFilter() {
  const { steps, soft } = usePreference('squint');
  const table = useMemo(() => {
    const grey = (v: number): string =>
      `#${Math.round(v * 255)
        .toString(16)
        .padStart(2, '0')
        .repeat(3)}`;
    return Array.from({ length: FINE }, (_, i) => {
      const tone = toneOfStep(stepOfTone(toneOf(grey(i / (FINE - 1))), steps), steps);
      return (parseInt(withTone('#808080', tone).slice(1, 3), 16) / 255).toFixed(3);
    }).join(' ');
  }, [steps]);
  const luminance = '0.2126 0.7152 0.0722 0 0 ';
  return (
    <svg width="0" height="0" aria-hidden="true" style={{ position: 'absolute' }}>
      <filter id="squint" x="0" y="0" width="100%" height="100%" colorInterpolationFilters="linearRGB">
        <feGaussianBlur stdDeviation={soft} edgeMode="duplicate" />
        <feColorMatrix type="matrix" values={`${luminance.repeat(3)}0 0 0 1 0`} />
        <feComponentTransfer colorInterpolationFilters="sRGB">
          <feFuncR type="discrete" tableValues={table} />
          <feFuncG type="discrete" tableValues={table} />
          <feFuncB type="discrete" tableValues={table} />
        </feComponentTransfer>
      </filter>
    </svg>
  );
}
