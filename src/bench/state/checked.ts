import type { CoverFigures } from '@/core/check/coveredInk';
import type { LineDistance } from '@/core/check/lineDistance';
import type { DistanceSums } from '@/core/check/measuredLines';
import type { Note } from '@/core/check/note';
import type { Uncovered } from '@/workers/checks';

/** What the checks know of the drawing as it is seen. */
export type Checked = {
  /** How each line lies to its ink, by its id. */
  readonly distances: ReadonlyMap<string, LineDistance>;
  readonly sums: DistanceSums | null;
  readonly covers: readonly CoverFigures[];
  readonly uncovered: readonly Uncovered[];
  readonly notes: readonly Note[];
  /** The notes that were not waved through. */
  readonly open: readonly Note[];
  /** Whether notes were looked for at all: none found is news only then. */
  readonly sought: boolean;
  readonly note: string | null;
  readonly state: 'idle' | 'preparing' | 'measuring' | 'ready';
  readonly failed: string | null;
  /** The place along the chosen line that the plot points at, in page units; null where it points at none. */
  readonly pointed: { x: number; y: number } | null;
};

export const nothingChecked: Checked = {
  distances: new Map(),
  sums: null,
  covers: [],
  uncovered: [],
  notes: [],
  open: [],
  sought: false,
  note: null,
  state: 'idle',
  failed: null,
  pointed: null,
};
