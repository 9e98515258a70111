import type { Crowd } from './crowd';

/**
 * What very many lines may take, ms, on a machine that redraws 10,000 of them in `REDRAWN` ms. Another machine, or the same in a
 * busy hour, is as much slower as it redraws them slower: what it may take is told beside it.
 */
const REDRAWN = 291;

const rows: readonly { what: string; most: number; of: (c: Crowd) => number }[] = [
  { what: 'opened: seen with reference', most: 700, of: (c) => c.open.seen },
  { what: 'opened: lines seen sharp', most: 1_500, of: (c) => c.open.linesSeen },
  { what: 'opened: page at hand', most: 700, of: (c) => c.open.pageSeen },
  { what: 'opened: with reference', most: 700, of: (c) => c.open.referenceSeen },
  { what: 'opened: page sharp', most: 1_500, of: (c) => c.open.open },
  { what: 'opened again: seen', most: 700, of: (c) => c.again.seen },
  { what: 'opened again: lines seen sharp', most: 1_500, of: (c) => c.again.linesSeen },
  { what: 'opened again: page at hand', most: 700, of: (c) => c.again.pageSeen },
  { what: 'opened again: with reference', most: 700, of: (c) => c.again.referenceSeen },
  { what: 'opened again: page sharp', most: 1_500, of: (c) => c.again.open },
  { what: 'pan, median', most: 7, of: (c) => c.frames.pan.median },
  { what: 'zoom, median', most: 12, of: (c) => c.frames.zoom.median },
  { what: 'zoom, p95', most: 16.7, of: (c) => c.frames.zoom.p95 },
  { what: 'node drag, median', most: 2.9, of: (c) => c.frames['node drag'].median },
  { what: 'choose all', most: 100, of: (c) => c.chooseAll },
  { what: 'drag of all, p95', most: 16.7, of: (c) => c.drag.all.p95 },
  { what: 'drag of 1,000, p95', most: 16.7, of: (c) => c.drag['1000'].p95 },
  { what: 'drag of 401, p95', most: 16.7, of: (c) => c.drag['401'].p95 },
  { what: 'let go: longest task', most: 50, of: (c) => c.letGo.longestTask },
  { what: 'let go: saved', most: 1_000, of: (c) => c.letGo.saved },
  { what: 'paste of 1,000 copied here', most: 200, of: (c) => c.pasteOwn.seen },
  { what: 'paste of 1,000 from elsewhere', most: 200, of: (c) => c.paste1000.seen },
  { what: 'one node committed, median', most: 8, of: (c) => c.nodeCommitted.median },
  { what: 'acknowledged, p95', most: 15, of: (c) => c.acknowledged.p95 },
];

const told = (ms: number): string => (ms < 20 ? ms.toFixed(1) : Math.round(ms).toString());

/** A table of runs, the last with the most lines: what each took, what it may take, and that at the pace of this run. */
export function crowdTable(runs: readonly Crowd[]): string {
  const pace = runs[runs.length - 1].redrawEverything.median / REDRAWN;
  const head = ['ms', 'may take', `here, × ${pace.toFixed(2)}`, ...runs.map((c) => `${c.lines} lines`)];
  const body = rows.map(({ what, most, of }) => {
    const mark = (ms: number): string => (ms <= most ? '' : ms <= most * pace ? ' ~' : ' over');
    return [what, told(most), told(most * pace), ...runs.map((c) => `${told(of(c))}${mark(of(c))}`)];
  });
  const table = [
    head,
    ...body,
    ['redrawing everything', '', '', ...runs.map((c) => told(c.redrawEverything.median))],
    ['let go: sent, kB', '1000', '', ...runs.map((c) => told(c.letGo.sent / 1_000))],
  ];
  const widths = head.map((_, i) => Math.max(...table.map((r) => r[i].length)));
  const lines = table.map((r) => r.map((v, i) => (i ? v.padStart(widths[i]) : v.padEnd(widths[i]))).join('  '));
  return `${lines.join('\n')}\n~: within what it may take at this run's pace\n`;
}
