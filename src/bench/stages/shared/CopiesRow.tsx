'use client';

import { nanoid } from 'nanoid';
import { useState } from 'react';
import type { Point } from '@/core';
import { counted } from '@/core/change/edit';
import { mappedCopies, mirrorAt, turnsAbout } from '@/core/edits/copies';
import type { Matrix } from '@/core/geometry/matrix';
import { NumberField } from '@/ui/NumberField';
import { useBench, useBenchState } from '../../benchContext';
import { useTitledButton } from '../../useDeedButton';

/** So many lines at most come of one press. */
const MOST = 10_000;

/** Copies of what is chosen: in a mirror through a place, or turned about it until they come round. */
export function CopiesRow({ at, where }: { at: Point; where: string }) {
  const bench = useBench();
  const button = useTitledButton();
  const reading = useBenchState((s) => s.reading);
  const [count, setCount] = useState(6);
  const make = (maps: readonly Matrix[], verb: string): void => {
    const { drawing, lines, within } = bench.getState();
    if (lines.size * maps.length > MOST) return bench.tell(`That would be more than ${MOST} lines at once.`);
    const label = counted(verb, lines.size, 'line');
    const { edit, ids } = mappedCopies(drawing, lines, maps, () => nanoid(10), label, within);
    if (bench.commit(edit)) bench.choose([...lines, ...ids]);
  };
  return (
    <div className="copies" role="group" aria-label="Copies">
      <span className="option-label">mirrored copy</span>
      {button('across', `Mirrored copy across an upright axis through the ${where}`, () =>
        make([mirrorAt(at, 'across')], 'Mirror'),
      )}
      {button('down', `Mirrored copy down, or up, beyond a level axis through the ${where}`, () =>
        make([mirrorAt(at, 'down')], 'Mirror'),
      )}
      <NumberField
        label="How many with the copies"
        value={count}
        min={2}
        max={72}
        digits={0}
        disabled={reading}
        onCommit={(v) => setCount(Math.round(v))}
      />
      {button('turned copies', `Turned copies about the ${where}, evenly all round`, () =>
        make(turnsAbout(at, count), 'Turn copies of'),
      )}
    </div>
  );
}
