import { nanoid } from 'nanoid';
import type { Drawing, Page } from '@/core';
import type { Edit } from '@/core/change/edit';
import { axisOf, joinHalves, mirroredEdit, mirrorMaps, type Images, type Mirror } from '@/core/edits/mirrored';
import type { ToolId } from '../tools/registry';
import type { BenchState } from './store';

/** What is done with these is done in all places at once. */
const mirroring: readonly ToolId[] = ['pen', 'pencil', 'shape', 'bend', 'nodes', 'swell'];

/** The mirror, while what is in hand draws in it. */
export const mirrorInHand = ({ mirror, tool }: Pick<BenchState, 'mirror' | 'tool'>): Mirror | null =>
  mirroring.includes(tool) ? mirror : null;

/** Knows which lines are each other's images while a drawing is drawn in a mirror; forgets when that changes. */
export class Mirroring {
  private mirror: Mirror | null = null;
  private readonly sets = new Map<string, Images>();

  /** What an edit comes to in the mirror that is set. */
  of(asked: Edit, s: Pick<BenchState, 'drawing' | 'mirror' | 'tool'>): Edit {
    if (s.mirror !== this.mirror) {
      this.mirror = s.mirror;
      this.sets.clear();
    }
    const mirror = mirrorInHand(s);
    if (!mirror || asked.steps.length === 0) return asked;
    const maps = mirrorMaps(mirror);
    return mirroredEdit(
      s.drawing,
      asked,
      maps,
      (line) => this.sets.get(line),
      (line) => this.sets.get(line) ?? this.setOf(line, maps.length),
    );
  }

  /** A preview of a line and the line itself have the same images. */
  private setOf(line: string, count: number): Images {
    const set = [line, ...Array.from({ length: count - 1 }, () => nanoid(10))];
    for (const one of set) this.sets.set(one, set);
    return set;
  }

  /** What makes a line one with its other half, where they meet on the axis. */
  joined(drawing: Drawing, line: string): Edit | null {
    const set = this.sets.get(line);
    const edit = this.mirror && set ? joinHalves(drawing, this.mirror, [line, ...set.filter((l) => l !== line)]) : null;
    return edit && edit.steps.length > 0 ? edit : null;
  }
}

/** A page with the axis as a guide, so that places are drawn to it. */
export function withAxis(page: Page, mirror: Mirror | null): Page {
  const axis = mirror && axisOf(mirror);
  return !axis ? page : { ...page, guides: [...page.guides, { axis, at: mirror.at[axis] }] };
}
