import { trueLine, type TrueLine } from './path';

/** The edges of the watering can, 1600 x 1200; its picture is painted from these same curves. */
export const canPage = { width: 1600, height: 1200 };

export const canPaths = {
  body: 'M470 470 C474 640 462 800 440 960 C520 1004 900 1004 980 960 C958 800 946 640 950 470 C860 508 560 508 470 470',
  rim: 'M470 470 C470 430 600 410 710 410 C820 410 950 430 950 470 C950 500 830 516 710 516 C590 516 470 500 470 470',
  spout: 'M962 800 C1080 760 1160 640 1236 470 L1296 496 C1230 690 1130 850 972 900',
  rose: 'M1214 452 C1236 430 1330 470 1322 506 C1314 530 1208 486 1214 452',
  handle:
    'M476 540 C330 520 268 620 292 720 C316 816 400 858 452 856 L456 808 C410 808 352 776 336 706 C322 630 372 580 474 592',
  bail: 'M560 424 C580 280 840 280 862 424 L832 428 C812 320 610 320 590 428',
} as const;

/** Each shape is closed by a straight side where its path does not come back to its start by itself. */
export const canLines: TrueLine[] = Object.entries(canPaths).map(([part, path]) => {
  const [, start] = /^M(\S+ \S+)/.exec(path)!;
  return trueLine(part, path.endsWith(start) ? path : `${path} L${start}`, 3, true);
});

/** Its parts from the back to the front, as they are painted. */
export const canInOrder = ['handle', 'spout', 'rose', 'body', 'rim', 'bail'].map(
  (part) => canLines.find((l) => l.part === part)!,
);
