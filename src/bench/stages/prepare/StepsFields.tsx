'use client';

import { Segmented } from 'antd';
import { useState } from 'react';
import type { Correction, Reference } from '@/core';
import type { CorrectionOf } from '@/core/raster/correction';
import { rgbColour } from '@/core/colour/colour';
import { toneSteps } from '@/core/raster/steps';
import { Amount } from '@/ui/Amount';
import { ColourField } from '@/ui/ColourField';
import { useBench } from '../../benchContext';
import { correct, sourceOf } from '../../state/corrections';
import { correctionsBefore } from '../../tools/pictureTool';

type Steps = CorrectionOf<'steps'>;
type Props = { reference: Reference; c: Steps; disabled: boolean; set: (c: Correction) => void };

const isGrey = (hex: string): boolean => hex.slice(1, 3) === hex.slice(3, 5) && hex.slice(3, 5) === hex.slice(5, 7);

/** How many tones, or colours, a picture is brought down to; these are taken from it, and can be changed one by one. */
export function StepsFields({ reference: r, c, disabled, set }: Props) {
  const bench = useBench();
  const [isBusy, setBusy] = useState(false);
  const of = c.colours.every(isGrey) ? 'tones' : 'colours';
  const take = async (kind: typeof of, count: number): Promise<void> => {
    setBusy(true);
    try {
      const before = correctionsBefore(r, 'steps');
      const colours =
        kind === 'tones'
          ? toneSteps(await correct.tones(sourceOf(r), before), count)
          : (await correct.palette(sourceOf(r), before, count)).map((p) => rgbColour(...p.colour));
      set({ ...c, colours: colours.length > 1 ? colours : [...colours, '#ffffff'] });
    } catch (error) {
      bench.tell(`The colours could not be taken: ${(error as Error).message}`, undefined, 'warning');
    }
    setBusy(false);
  };
  return (
    <>
      <Segmented
        block
        size="small"
        aria-label="Steps of what"
        disabled={disabled || isBusy}
        value={of}
        options={[
          { value: 'tones', label: 'tones' },
          { value: 'colours', label: 'colours' },
        ]}
        onChange={(v) => void take(v as typeof of, c.colours.length)}
      />
      <Amount
        label="How many"
        value={c.colours.length}
        min={2}
        max={12}
        disabled={disabled || isBusy}
        onChange={(v, done) => done && v !== c.colours.length && void take(of, v)}
      />
      <div className="buttons">
        {c.colours.map((colour, i) => (
          <ColourField
            key={i}
            label={`Step ${i + 1}`}
            value={colour}
            disabled={disabled || isBusy}
            onCommit={(next) => set({ ...c, colours: c.colours.with(i, next) })}
          />
        ))}
      </div>
    </>
  );
}
