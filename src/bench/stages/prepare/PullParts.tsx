'use client';

import { Button, Progress } from 'antd';
import { NumberField } from '@/ui/NumberField';

type FitProps = { value: number; min: number; max: number; disabled: boolean; onCommit: (v: number) => void };

/** How far from what was found the fitted curves may run. */
export const FitWithin = (field: FitProps) => (
  <div className="fields">
    <span className="option-label">fit within, px</span>
    <NumberField label="Tolerance" digits={1} {...field} />
  </div>
);

/** How much of what is being pulled is done, and what calls it off. */
export const PullProgress = ({ share, onStop }: { share: number; onStop: () => void }) => (
  <div className="row">
    <Progress percent={Math.round(share * 100)} size="small" aria-label="Progress" />
    <Button size="small" onClick={onStop}>
      Stop
    </Button>
  </div>
);
