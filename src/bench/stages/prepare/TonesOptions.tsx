'use client';

import { Choice } from '@/ui/Chip';
import { usePreference } from '../../benchContext';
import { prefer } from '../../state/preferences';
import { DoneOption } from './DoneOption';

/** What the next press picks. */
export function TonesOptions() {
  const pickTone = usePreference('pickTone');
  return (
    <>
      <span className="option-label">The next press picks</span>
      <Choice
        label="What the next press picks"
        value={pickTone}
        options={[
          { value: 'ink', label: 'ink', title: 'Press on a stroke' },
          { value: 'paper', label: 'paper', title: 'Press on bare paper' },
        ]}
        onChange={(v) => prefer({ pickTone: v })}
      />
      <DoneOption />
    </>
  );
}
