import { readSvg, writeSvg, type Drawing } from '../src/core';
import { firstDelivery, type Delivery } from '../src/core/deliver/delivery';
import { exportedFile } from '../src/server/jobs/exportedFile';
import { endJobs } from '../src/server/jobs/pool';
import { renderCard, wakeJobs } from '../src/server/render';
import * as scene from './scene';

const A4: Drawing['page'] = { ...scene.drawing(null, 4).page, width: 793.7, height: 1122.5, unit: 'mm', dpi: 300 };
const base: Delivery = { ...firstDelivery, ground: true, dpi: 300 };
const A4_PIXELS = { width: 2480, height: 3508 };

/** How long files take to be made of so many lines on a page of A4 at 300 dpi, and an SVG of them to be read; ms, KB. */
export async function delivering(lines: number): Promise<Record<string, { ms: number; kb: number }>> {
  const drawing = { ...scene.drawing(null, lines), page: A4 };
  const figures: Record<string, { ms: number; kb: number }> = {};
  const note = async (name: string, make: () => Promise<{ length: number }> | { length: number }): Promise<void> => {
    const begin = performance.now();
    const { length } = await make();
    figures[name] = { ms: Math.round(performance.now() - begin), kb: Math.round(length / 1000) };
  };
  const file = (format: Delivery['format'], more: Partial<Delivery> = {}, size = A4_PIXELS) =>
    exportedFile(drawing, { ...base, format, ...more }, { title: 'Scene', size }, {}, '');
  const text = writeSvg(drawing);
  await note('svg', () => writeSvg(drawing));
  await note('svg read', () => ({ length: readSvg(text) && text.length }));
  await note('pdf', () => file('pdf'));
  await note('png, 300 dpi', () => file('png'));
  await wakeJobs();
  await note('card', () => renderCard(drawing));
  await endJobs();
  return figures;
}
