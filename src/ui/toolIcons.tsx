'use client';

import type { ReactNode } from 'react';

/** Our own signs, drawn on 22 units. */
const icon = (content: ReactNode) => (
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

export const toolIcons = {
  place: icon(
    <>
      <rect x="3" y="5" width="16" height="12" rx="1" />
      <path d="M3 14l4.5-4 4 4 2.5-2 5 4" strokeWidth="1.2" />
      <circle cx="3" cy="5" r="1.8" fill="#f4c20d" strokeWidth="1" />
      <circle cx="19" cy="17" r="1.8" fill="#f4c20d" strokeWidth="1" />
    </>,
  ),
  crop: icon(
    <>
      <path d="M3 4h11v13M8 2v12h11" />
      <path d="M8 14L14 8" strokeWidth="1" strokeDasharray="2 2" />
    </>,
  ),
  corners: icon(
    <>
      <path d="M5 5l13-2 1 13-15 3z" />
      <circle cx="5" cy="5" r="1.9" fill="#f4c20d" strokeWidth="1" />
      <circle cx="18" cy="3" r="1.9" fill="#f4c20d" strokeWidth="1" />
      <circle cx="19" cy="16" r="1.9" fill="#f4c20d" strokeWidth="1" />
      <circle cx="4" cy="19" r="1.9" fill="#f4c20d" strokeWidth="1" />
    </>,
  ),
  part: icon(
    <>
      <rect x="4" y="4" width="14" height="12" rx="1" strokeDasharray="3 2.200" />
      <path d="M4 19h8" strokeWidth="3" stroke="#f4c20d" />
    </>,
  ),
  pull: icon(
    <>
      <path d="M3 15c4-9 6 3 9-4" strokeWidth="3.600" stroke="#b9af97" />
      <path d="M3 15c4-9 6 3 9-4" strokeWidth="1.2" />
      <path d="M13 8l5-4M18 4l-.5 3.500M18 4l-3.500.2" strokeWidth="1.3" />
    </>,
  ),
  settle: icon(
    <>
      <path d="M2 15c5-8 9 3 18-5" strokeWidth="4" stroke="#b9af97" />
      <path d="M2 9c5-8 9 3 18-5" strokeWidth="1.2" strokeDasharray="2 2" />
      <path d="M2 15c5-8 9 3 18-5" strokeWidth="1.4" />
      <path d="M11 4v4M9.200 6.500L11 8.300l1.800-1.800" strokeWidth="1.2" />
    </>,
  ),
  thin: icon(
    <>
      <path d="M2 16C5 4 16 4 20 14" strokeWidth="1.4" />
      <circle cx="2.800" cy="14" r="1.9" fill="#f4c20d" strokeWidth="1" />
      <circle cx="19.500" cy="13" r="1.9" fill="#f4c20d" strokeWidth="1" />
      <path d="M6.500 5.500l3 3M9.500 5.500l-3 3M13 5l3 3M16 5l-3 3" strokeWidth="1.2" />
    </>,
  ),
  swell: icon(
    <>
      <path
        d="M2 12C7 11 8 6.500 12 6.500S17 10 20 11c-3 1-4 4.500-8 4.500S7 13 2 12z"
        fill="#f4c20d"
        strokeWidth="1.2"
      />
      <path d="M12 3v16" strokeWidth="1.2" />
      <circle cx="12" cy="3" r="1.400" fill="#fffefb" strokeWidth="1" />
      <circle cx="12" cy="19" r="1.400" fill="#fffefb" strokeWidth="1" />
    </>,
  ),
  readWidths: icon(
    <>
      <path d="M2 15C7 15 9 5 14 5c3 0 4 2 6 2" strokeWidth="5" stroke="#b9af97" />
      <path d="M6 8.500l4.500 6M12 2.200l1.500 6.600M17 3.500l-.5 6" strokeWidth="1.3" />
    </>,
  ),
  pen: icon(
    <>
      <path
        d="M19 2C12.500 3.500 8 8.500 6.500 15l-1.500 5 4-3.500C14.500 15 18.500 9 19 2z"
        fill="#f4c20d"
        strokeWidth="1.2"
      />
      <path d="M6.500 17C9.500 12 13 8 17 4.500" strokeWidth="1.1" />
    </>,
  ),
  pencil: icon(
    <>
      <path d="M3 19l1.500-5L15 3.500l3.500 3.500L8 17.500z" />
      <path d="M3 19l1.500-5L8 17.500z" fill="#f4c20d" strokeWidth="1" />
      <path d="M12 19c2.500-2 4 1.500 7-1" strokeWidth="1.2" />
    </>,
  ),
  bend: icon(
    <>
      <path d="M2 17h18" strokeWidth="1" strokeDasharray="2 2" />
      <path d="M2 17C7 5 15 5 20 17" />
      <circle cx="11" cy="8" r="2" fill="#f4c20d" strokeWidth="1" />
      <path d="M11 5.500V1.500M9.200 3.200L11 1.500l1.800 1.700" strokeWidth="1.200" />
    </>,
  ),
  shape: icon(
    <>
      <ellipse cx="8.500" cy="8" rx="6" ry="5" />
      <path d="M10 19l4.500-9 5.500 7z" fill="#f4c20d" strokeWidth="1.2" />
    </>,
  ),
  select: icon(
    <>
      <path d="M3 17C6 7 12 15 19 5" />
      <path d="M2.500 12.500v-9h9M19.500 9.500v9h-9" strokeDasharray="2.500 2.200" strokeWidth="1.1" />
    </>,
  ),
  nodes: icon(
    <>
      <path d="M2 17C6 4 15 4 20 15" />
      <rect x="7" y="4" width="9" height="4" rx="2" fill="#f4c20d" strokeWidth="1" />
    </>,
  ),
};

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
