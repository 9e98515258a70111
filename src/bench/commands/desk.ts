import type { Reference } from '@/core';
import { layBeside, layOver, placeReference, setReference } from '@/core/edits/references';
import { referenceOf, sheetOf } from '@/core/drawing/find';
import { placedBox } from '@/core/drawing/placement';
import { joinBoxes } from '@/core/geometry/box';
import { ApiError, sendPicture } from '../state/api';
import type { Bench, Compare } from '../state/store';
import type { StageId } from '../stages/table';
import type { ToolId } from '../tools/registry';
import { fitting, zoomedAt } from '../state/view';

/** Goes to a stage; the tool in hand stays when the stage has it too. */
export function goToStage(bench: Bench, stage: StageId): void {
  const { tools, keeps = tools, first } = bench.getState().desk.find((s) => s.id === stage)!;
  bench.setState((s) => ({
    stage,
    tool: keeps.includes(s.tool) || s.stage === stage ? s.tool : first,
    into: null,
    behind: null,
  }));
}

/** Takes a tool in hand; where the stage does not have it, the first that has is gone to. */
export function takeTool(bench: Bench, tool: ToolId): void {
  const { stage, desk } = bench.getState();
  const having = desk.filter((s) => s.tools.includes(tool));
  if (having.some((s) => s.id === stage)) bench.setState({ tool });
  else bench.setState({ tool, stage: having[0].id });
}

export function showPage(bench: Bench): void {
  const { drawing, window, compare } = bench.getState();
  const box = { minX: 0, minY: 0, maxX: drawing.page.width, maxY: drawing.page.height };
  const width = compare?.kind === 'beside' ? window.width / 2 : window.width;
  bench.setState({ view: fitting(box, { ...window, width }) });
}

/** Takes a sheet to work on, and goes to its part of the picture where that is boxed. */
export function workOn(bench: Bench, id: string): void {
  const { drawing, window, tool } = bench.getState();
  const part = sheetOf(drawing, id)?.part;
  bench.setState({ sheet: id, ...(part && tool !== 'part' ? { view: fitting(part, window) } : {}) });
}

export function actualSize(bench: Bench): void {
  const { view, window } = bench.getState();
  bench.setState({ view: zoomedAt(view, { x: window.width / 2, y: window.height / 2 }, 1) });
}

/** Shows the sheet in hand alone, or all of them again. */
export function toggleSolo(bench: Bench, sheet = bench.getState().sheet): void {
  const { solo } = bench.getState();
  bench.setState({ solo: solo === sheet ? null : sheet });
}

/** Side by side the middle of the window comes to the middle of its left half, and goes back. */
export function compareBy(bench: Bench, compare: Compare | null): void {
  const { view, window, compare: was } = bench.getState();
  const isBeside = compare?.kind === 'beside';
  const wasBeside = was?.kind === 'beside';
  const by = isBeside === wasBeside ? 0 : ((isBeside ? -1 : 1) * window.width) / 4;
  bench.setState({ compare, lifted: false, view: { ...view, x: view.x + by } });
}

/** Lays a picture beside the page, or under the work again, and shows both. */
export function putBeside(bench: Bench, id: string, is: boolean): void {
  if (!bench.commit(layBeside(bench.getState().drawing, id, is))) return;
  const { drawing, window } = bench.getState();
  const page = { minX: 0, minY: 0, maxX: drawing.page.width, maxY: drawing.page.height };
  bench.setState({ view: fitting(joinBoxes(page, placedBox(referenceOf(drawing, id)!)), window) });
}

/** What the file dialogs offer. */
export const PICTURE_TYPES = 'image/png,image/jpeg,image/webp,image/gif,image/tiff,image/avif,image/svg+xml,.tif,.tiff';

/** Sends a picture to be taken in; what cannot be is told, and null comes back. */
export async function takeIn(bench: Bench, file: File): Promise<Reference | null> {
  try {
    return await sendPicture(bench.getState().id, file, file.name || 'pasted picture');
  } catch (error) {
    const why = error instanceof ApiError ? error.message : String(error);
    bench.tell(`“${file.name}”: ${why}`, undefined, 'warning');
    return null;
  }
}

/** Says of a picture that looks like a photograph what that means, with the way to have it otherwise. */
function tellPhoto(bench: Bench, { id, name }: Reference): void {
  bench.tell(`“${name}” looks like a photo: lines keep to its edges.`, {
    label: 'It is a sketch: keep to ink',
    run: () => void bench.commit(setReference(bench.getState().drawing, id, { target: 'ink' }, 'Measure from')),
  });
}

/** Brings pictures in and lays them on the page, one change each; what cannot be taken is told and passed over. */
export async function bringIn(bench: Bench, files: Iterable<File>): Promise<void> {
  for (const file of files) {
    const reference = await takeIn(bench, file);
    if (!reference) continue;
    const { drawing } = bench.getState();
    const over = drawing.references.findLast((r) => r.visible && !r.beside);
    bench.commit(placeReference(drawing, layOver(drawing, reference)));
    bench.setState({ reference: reference.id });
    if (reference.target === 'edge' && !over) tellPhoto(bench, reference);
    if (over)
      bench.tell(`“${reference.name}” lies over “${over.name}”.`, {
        label: 'Lay it beside the page',
        run: () => putBeside(bench, reference.id, true),
      });
  }
}
