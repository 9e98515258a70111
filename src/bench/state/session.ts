import type { Mirror } from '@/core/edits/mirrored';
import type { StageId } from '../stages/table';
import type { ToolId } from '../tools/registry';
import { SESSION } from './localKeys';
import type { Size, View } from './view';

/** Where a person was in a drawing: kept in this browser, so that a reload lands there again. */
export type Session = {
  view: View;
  window: Size;
  stage: StageId;
  tool: ToolId;
  sheet: string;
  rulers: boolean;
  mirror: Mirror | null;
};

const key = (drawing: string): string => SESSION + drawing;

export function loadSession(drawing: string): Partial<Session> {
  try {
    const kept = JSON.parse(localStorage.getItem(key(drawing)) ?? '{}') as Partial<Session>;
    const v = kept.view;
    const isView = v && [v.scale, v.x, v.y].every(Number.isFinite) && v.scale > 0;
    const w = kept.window;
    const isSize = w && [w.width, w.height].every((side) => side > 0 && side < 20_000);
    const m = kept.mirror;
    const isMirror = m && [m.at?.x, m.at?.y, m.kind === 'round' ? m.count : 2].every(Number.isFinite);
    return { ...kept, view: isView ? v : undefined, window: isSize ? w : undefined, mirror: isMirror ? m : null };
  } catch {
    return {};
  }
}

export function storeSession(drawing: string, session: Session): void {
  try {
    localStorage.setItem(key(drawing), JSON.stringify(session));
  } catch {
    // A full or forbidden store only means that the next visit starts with the whole page.
  }
}
