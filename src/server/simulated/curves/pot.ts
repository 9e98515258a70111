import { trueLine, type TrueLine } from './path';

/** The edges of what stands about a clay pot, 1600 x 1200, from the back to the front; the picture is painted from these same curves. */
export const potPage = { width: 1600, height: 1200 };

export const potPaths = {
  radish: 'M1010 560 C1120 540 1240 620 1262 740 C1282 850 1220 950 1120 1000 C1090 1016 1066 1050 1050 1096 C1040 1052 1020 1020 984 1000 C880 950 820 840 852 726 C874 640 930 574 1010 560',
  leaf: 'M1010 566 C1000 470 1040 360 1140 290 C1230 226 1330 216 1420 240 C1400 330 1340 420 1250 470 C1170 514 1080 530 1010 566',
  pot: 'M420 520 C440 700 470 880 520 1040 C600 1080 800 1080 880 1040 C930 880 960 700 980 520 L420 520',
  collar: 'M390 400 C560 440 840 440 1010 400 C1018 446 1014 492 1000 536 C840 574 560 574 400 536 C386 492 382 446 390 400',
  shell: 'M180 1010 C170 920 230 850 320 846 C420 842 500 910 500 1000 C500 1060 450 1104 380 1116 C290 1130 190 1096 180 1010',
} as const;

/** Each shape is closed by a straight side where its path does not come back to its start by itself. */
export const potLines: TrueLine[] = Object.entries(potPaths).map(([part, path]) => trueLine(part, path, 3, true));
