'use client';

import type { ReactNode } from 'react';

/** The quill that stands for the program. */
export const quillMark = (
  <svg width="24" height="28" viewBox="0 0 26 30" aria-hidden="true">
    <path
      d="M22 1C12 3 5 11 4 22l-2 7 5-5c8-2 14-10 15-23z"
      fill="#f4c20d"
      stroke="#27241d"
      strokeWidth="1.4"
      strokeLinejoin="round"
    />
    <path d="M4 24C9 17 14 11 20 5" stroke="#27241d" strokeWidth="1.2" fill="none" />
  </svg>
);

const kindIcon = (content: ReactNode) => (
  <svg
    width="24"
    height="14"
    viewBox="0 0 24 14"
    aria-hidden="true"
    fill="#fff"
    stroke="#8f2d63"
    strokeWidth="1.6"
    strokeLinejoin="round"
  >
    {content}
  </svg>
);

export const kindIcons = {
  corner: kindIcon(<path d="M12 2L4 11h7z" />),
  smooth: kindIcon(<rect x="4" y="4" width="16" height="6" rx="3" />),
  even: kindIcon(
    <>
      <rect x="4" y="4" width="16" height="6" rx="3" />
      <path d="M12 1v12" />
    </>,
  ),
  flowing: kindIcon(<circle cx="12" cy="7" r="5" strokeDasharray="3 2" />),
};
