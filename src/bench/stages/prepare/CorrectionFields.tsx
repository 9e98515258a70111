'use client';

import { Button, Segmented } from 'antd';
import { useEffect, useMemo, useState } from 'react';
import type { Correction, Reference } from '@/core';
import { setCorrection } from '@/core/edits/references';
import { Amount } from '@/ui/Amount';
import { CorrectionAmount } from './CorrectionAmount';
import { LensFields } from './LensFields';
import { StepsFields } from './StepsFields';
import { TwoToneFields } from './TwoToneFields';
import { ColourField } from '@/ui/ColourField';
import { NumberField } from '@/ui/NumberField';
import { later } from '@/ui/later';
import { useBench } from '../../benchContext';
import { correct, sourceOf } from '../../state/corrections';
import { correctionsBefore } from '../../tools/pictureTool';
import { correctionNames } from './corrections';
import { layStraight } from './layStraight';

/** Charts come when they are first looked at. */
const LevelsPlot = later(() => import('./LevelsPlot').then((m) => m.LevelsPlot), 92);

type Props = { reference: Reference; correction: Correction; disabled: boolean };

/** What can be set of a correction that is on. */
export function CorrectionFields({ reference: r, correction: c, disabled }: Props) {
  const bench = useBench();
  const { name } = correctionNames[c.kind];
  const edit = (next: Correction) => setCorrection(bench.getState().drawing, r.id, next, name);
  const show = (next: Correction): void => bench.show(edit(next));
  const set = (next: Correction): void => void bench.commit(edit(next));
  const setting = { disabled, show, set };
  switch (c.kind) {
    case 'lens':
      return <LensFields reference={r} c={c} {...setting} />;
    case 'crop':
    case 'straighten': {
      const tool = c.kind === 'crop' ? 'crop' : 'corners';
      return (
        <div className="buttons">
          <Button size="small" disabled={disabled} onClick={() => bench.setState({ reference: r.id, tool })}>
            {c.kind === 'crop' ? 'Change what is kept' : 'Move the corners'}
          </Button>
          {c.kind === 'straighten' && (
            <label className="amount">
              <span className="option-label">wide by high</span>
              <NumberField
                label="Width of the page divided by its height"
                value={c.aspect}
                unset="as seen"
                min={0.05}
                max={20}
                digits={3}
                disabled={disabled}
                onCommit={(aspect) => set({ ...c, aspect })}
              />
              {c.aspect !== null && (
                <Button size="small" disabled={disabled} onClick={() => set({ ...c, aspect: null })}>
                  As seen
                </Button>
              )}
            </label>
          )}
        </div>
      );
    }
    case 'turn':
      return (
        <div className="buttons">
          <NumberField
            label="Degrees"
            value={c.degrees}
            min={-180}
            max={180}
            digits={2}
            unit="°"
            disabled={disabled}
            onCommit={(degrees) => set({ ...c, degrees })}
          />
          <Button size="small" disabled={disabled} onClick={() => void layStraight(bench, r)}>
            Find it
          </Button>
        </div>
      );
    case 'light':
      return (
        <Amount
          label="Strength"
          value={Math.round(c.strength * 100)}
          min={0}
          max={100}
          disabled={disabled}
          onChange={(v, done) => (done ? set : show)({ ...c, strength: v / 100 })}
        />
      );
    case 'levels':
      return <Levels reference={r} correction={c} {...setting} />;
    case 'threshold':
      return (
        <>
          <Segmented
            block
            size="small"
            aria-label="Kind of threshold"
            disabled={disabled}
            value={c.method}
            options={[
              { value: 'adaptive', label: 'by its surroundings' },
              { value: 'global', label: 'one level' },
            ]}
            onChange={(method) => set({ ...c, method: method as typeof c.method })}
          />
          <CorrectionAmount c={c} {...setting} of="level" label="Level" min={1} max={255} />
        </>
      );
    case 'tint':
      return (
        <ColourField label="Tint" value={c.colour} disabled={disabled} onCommit={(colour) => set({ ...c, colour })} />
      );
    case 'twoTone':
      return <TwoToneFields c={c} {...setting} />;
    case 'blur':
      return <CorrectionAmount c={c} {...setting} of="radius" label="Radius, px" min={0} max={12} step={0.1} />;
    case 'denoise':
      return <CorrectionAmount c={c} {...setting} of="rounds" label="Rounds" min={1} max={3} />;
    case 'apart':
      return (
        <>
          <Button size="small" disabled={disabled} onClick={() => bench.setState({ reference: r.id, tool: 'apart' })}>
            {c.outlines.length > 0 ? 'Go around another thing' : 'Go around the thing'}
          </Button>
          <Amount
            label="Dim the rest"
            value={Math.round(c.dim * 100)}
            min={0}
            max={100}
            disabled={disabled}
            onChange={(v, done) => (done ? set : show)({ ...c, dim: v / 100 })}
          />
        </>
      );
    case 'simplify':
      return (
        <>
          <CorrectionAmount c={c} {...setting} of="radius" label="Over, px" min={1} max={100} />
          <CorrectionAmount c={c} {...setting} of="contrast" label="What differs less than" min={5} max={255} />
        </>
      );
    case 'steps':
      return <StepsFields reference={r} c={c} disabled={disabled} set={set} />;
    case 'grey':
    case 'invert':
      return null;
  }
}

type LevelsProps = {
  reference: Reference;
  correction: Extract<Correction, { kind: 'levels' }>;
  disabled: boolean;
  show: (c: Correction) => void;
  set: (c: Correction) => void;
};

/** What the figures of the tones are called: at them, and in full. */
const toneWords = {
  black: { short: 'ink', full: 'Ink: what is darker' },
  middle: { short: 'between', full: 'Between: above 1 lighter, below 1 darker' },
  white: { short: 'paper', full: 'Paper: what is lighter' },
} as const;

/** Levels by marks on the tones that they are set for, or by figures. */
function Levels({ reference: r, correction: c, disabled, show, set }: LevelsProps) {
  const bench = useBench();
  const tones = useTones(r);
  const [held, setHeld] = useState<typeof c | null>(null);
  const shown = held ?? c;
  const levels = useMemo(
    () => ({ black: shown.black, white: shown.white, middle: shown.middle }),
    [shown.black, shown.white, shown.middle],
  );
  return (
    <>
      <LevelsPlot
        tones={tones}
        levels={levels}
        disabled={disabled}
        onMove={(l) => {
          setHeld({ ...c, ...l });
          show({ ...c, ...l });
        }}
        onDone={(l) => {
          setHeld(null);
          set({ ...c, ...l });
        }}
      />
      <Button size="small" disabled={disabled} onClick={() => bench.setState({ reference: r.id, tool: 'tones' })}>
        Pick them in the picture
      </Button>
      <div className="tones">
        {(['black', 'middle', 'white'] as const).map((which) => (
          <label key={which}>
            <span className="option-label">{toneWords[which].short}</span>
            <NumberField
              label={toneWords[which].full}
              value={shown[which]}
              min={which === 'black' ? 0 : which === 'white' ? c.black + 1 : 0.1}
              max={which === 'black' ? c.white - 1 : which === 'white' ? 255 : 10}
              digits={which === 'middle' ? 2 : 0}
              disabled={disabled}
              onCommit={(v) => set({ ...c, [which]: v })}
            />
          </label>
        ))}
      </div>
    </>
  );
}

/** How many pixels have each tone before the levels are set. */
function useTones(r: Reference): readonly number[] {
  const [tones, setTones] = useState<readonly number[]>(noTones);
  const before = JSON.stringify(correctionsBefore(r, 'levels'));
  useEffect(() => {
    let left = false;
    correct
      .tones(sourceOf(r), JSON.parse(before) as Correction[])
      .then((t) => !left && setTones(t))
      .catch(() => undefined);
    return () => {
      left = true;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- of the reference, only its picture counts
  }, [r.picture, before]);
  return tones;
}

const noTones: readonly number[] = new Array<number>(256).fill(0);
