'use client';

import { Button } from 'antd';
import { findItem } from '@/core/drawing/find';
import { gradientOfItem, setGradient } from '@/core/edits/fills';
import { opaqueColourOf } from '@/core/scene/ink';
import { Choice } from '@/ui/Chip';
import { ColourField } from '@/ui/ColourField';
import { useBench, useBenchState, usePreference } from '../../benchContext';
import { paintOf } from '../../commands/colours';
import { onlyChosen } from '../../state/chosen';
import { prefer } from '../../state/preferences';

const kinds = [
  { value: 'linear', label: 'along a line' },
  { value: 'radial', label: 'in rings' },
] as const;

/** The kind of the gradient in hand, or of the next one; the colour of its stop in hand; the other way round. */
export function GradientOptions() {
  const bench = useBench();
  const next = usePreference('gradientKind');
  const reading = useBenchState((s) => s.reading);
  const stop = useBenchState((s) => s.stop);
  const drawing = useBenchState((s) => s.drawing);
  const id = useBenchState(onlyChosen);
  const item = id === null ? undefined : findItem(drawing, id)?.item;
  const gradient = item ? gradientOfItem(drawing, item) : null;
  const set = (sides: Parameters<typeof setGradient>[2]): void =>
    void (gradient && bench.commit(setGradient(bench.getState().drawing, gradient.id, sides)));
  const own = gradient && stop !== null ? gradient.stops[stop] : undefined;
  return (
    <>
      <Choice
        label="Kind of gradient"
        options={kinds}
        value={gradient?.kind ?? next}
        disabled={reading}
        onChange={(kind) => {
          prefer({ gradientKind: kind });
          set({ kind });
        }}
      />
      {gradient && own && (
        <ColourField
          label="Colour of the stop"
          value={opaqueColourOf(drawing, own.colour)}
          disabled={reading}
          onCommit={(c) =>
            set({ stops: gradient.stops.map((s) => (s === own ? { ...s, colour: paintOf(bench, c) } : s)) })
          }
        />
      )}
      {gradient && (
        <Button
          size="small"
          disabled={reading}
          onClick={() => set({ stops: gradient.stops.map((s) => ({ ...s, at: 1 - s.at })) })}
        >
          Turn about
        </Button>
      )}
      {!gradient && <span className="option-label">Drag across a filled shape.</span>}
    </>
  );
}
