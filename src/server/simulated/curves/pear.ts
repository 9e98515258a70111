import { trueLine, type TrueLine } from './path';

/** The pear branch of the packet's front, on a page of 148 x 210 mm, in hundredths of a millimetre / 10: 1480 x 2100. */
export const pearPage = { width: 1480, height: 2100 };

const speckles: [number, number][] = [
  [610, 1460],
  [662, 1534],
  [585, 1560],
  [705, 1610],
  [640, 1655],
  [766, 1672],
  [560, 1420],
  [820, 1600],
  [880, 1540],
  [700, 1700],
];

export const pearLines: TrueLine[] = [
  trueLine('Stem and twig', 'M742 812 C730 700 742 596 812 492 C828 468 838 446 846 420', 9),
  trueLine('Stem and twig', 'M190 388 C360 352 520 360 690 404 C850 446 1010 440 1210 352', 11),
  trueLine('Stem and twig', 'M176 424 C350 392 520 398 684 440 C856 484 1030 478 1236 384', 11),
  trueLine('Stem and twig', 'M190 388 C178 396 172 410 176 424', 9),
  trueLine('Stem and twig', 'M430 364 C420 330 424 300 446 276', 8),
  trueLine('Leaf, right', 'M824 470 C880 560 960 640 1080 672 C1180 698 1290 672 1370 612', 8),
  trueLine('Leaf, right', 'M824 470 C930 440 1050 442 1160 482 C1250 514 1320 560 1370 612', 8),
  trueLine('Leaf, right', 'M824 470 C960 500 1180 556 1370 612', 6),
  trueLine('Leaf veins', 'M930 496 C966 488 1000 476 1030 456', 4),
  trueLine('Leaf veins', 'M1030 520 C1076 512 1110 500 1140 478', 4),
  trueLine('Leaf veins', 'M960 504 C986 536 1012 572 1024 646', 4),
  trueLine('Leaf veins', 'M1080 533 C1108 566 1130 608 1140 680', 4),
  trueLine('Leaf, left', 'M560 384 C500 470 410 540 300 560 C220 574 150 552 96 512', 8),
  trueLine('Leaf, left', 'M560 384 C460 380 330 392 232 430 C170 454 126 480 96 512', 8),
  trueLine('Leaf, left', 'M560 384 C420 430 250 478 96 512', 6),
  trueLine(
    'Pear outline',
    'M742 812 C640 806 604 900 574 1010 C548 1106 486 1170 430 1280 C362 1414 372 1580 470 1690 C560 1790 690 1812 790 1800 C920 1784 1046 1700 1078 1550 C1104 1424 1044 1304 980 1212 C924 1132 918 1050 890 956 C864 868 822 816 742 812',
    10,
    true,
  ),
  trueLine('Pear outline', 'M742 812 C754 824 762 836 764 852', 7),
  trueLine('Shading', 'M512 1520 C530 1600 580 1668 652 1704', 5),
  trueLine('Shading', 'M480 1500 C494 1606 560 1706 650 1744', 5),
  trueLine('Shading', 'M960 1250 C1000 1320 1022 1400 1020 1480', 5),
  trueLine('Shading', 'M924 1240 C966 1320 986 1400 982 1500', 5),
  trueLine('Calyx', 'M716 1806 C724 1826 738 1840 756 1846', 6),
  trueLine('Calyx', 'M800 1799 C796 1822 782 1840 756 1846', 6),
  trueLine('Calyx', 'M744 1808 C750 1820 754 1832 756 1846', 5),
  ...speckles.map(([x, y]) =>
    trueLine('Speckles', `M${x} ${y} C${x + 3} ${y - 5} ${x + 8} ${y - 4} ${x + 9} ${y + 2}`, 6),
  ),
];
