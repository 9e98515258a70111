'use client';

import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import type { Swatch } from '@/core/drawing/paint';
import { toneOf, valueStep } from '@/core/colour/tone';

type Props = { swatch: Swatch; isOn: boolean; steps: number | null; disabled: boolean; onPick: () => void };

/** One swatch: dragged to another place, picked by a press; with its value step where these are asked for. */
export function SwatchChip({ swatch, isOn, steps, disabled, onPick }: Props) {
  const { setNodeRef, attributes, listeners, transform, transition } = useSortable({ id: swatch.id, disabled });
  const step = steps === null ? null : valueStep(swatch.colour, steps);
  return (
    <button
      ref={setNodeRef}
      type="button"
      className={isOn ? 'swatch on' : 'swatch'}
      style={{
        background: swatch.colour,
        color: toneOf(swatch.colour) > 0.6 ? '#27241d' : '#fffefb',
        transform: CSS.Translate.toString(transform),
        transition,
      }}
      title={`${swatch.name} ${swatch.colour}`}
      {...attributes}
      {...listeners}
      aria-label={`${swatch.name}, ${swatch.colour}${step === null ? '' : `, step ${step} of ${steps}`}`}
      aria-pressed={isOn}
      onClick={onPick}
    >
      {step}
    </button>
  );
}
