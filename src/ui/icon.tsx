'use client';

import type { ReactNode } from 'react';

/** A sign of our own, drawn on 22 units. */
export const icon = (content: ReactNode) => (
  <svg
    viewBox="0 0 22 22"
    width="22"
    height="22"
    aria-hidden="true"
    fill="none"
    stroke="currentColor"
    strokeWidth="1.5"
    strokeLinejoin="round"
    strokeLinecap="round"
  >
    {content}
  </svg>
);
