'use client';

import { Button, Checkbox } from 'antd';
import { Chip, Choice } from '@/ui/Chip';
import { LengthField } from '@/ui/LengthField';
import { Slip } from '@/ui/Slip';
import { NumberField } from '@/ui/NumberField';
import { useBench, useBenchState, usePreference } from '../../benchContext';
import { chooseAlike, invertChoice } from '../../commands/lines';
import { prefer, preferIn, type AlikeFigures } from '../../state/preferences';

/** How lines are chosen. */
export function SelectOptions() {
  const bench = useBench();
  const marquee = usePreference('marquee');
  const enclosing = usePreference('enclosing');
  const frame = usePreference('frame');
  const alignThings = usePreference('alignThings');
  const count = useBenchState((s) => s.lines.size);
  return (
    <>
      <span className="option-label">Choose with</span>
      <Choice
        label="Choose with"
        value={marquee}
        options={[
          { value: 'box', label: 'a box' },
          { value: 'lasso', label: 'a lasso' },
        ]}
        onChange={(v) => prefer({ marquee: v })}
      />
      <span className="option-label">what it</span>
      <Choice
        label="What a box or a lasso chooses"
        value={enclosing ? 'holds' : 'touches'}
        options={[
          { value: 'touches', label: 'touches' },
          { value: 'holds', label: 'holds whole' },
        ]}
        onChange={(v) => prefer({ enclosing: v === 'holds' })}
      />
      <Slip title="Choose alike" placement="top" content={() => <AlikeForm />}>
        <Button size="small" disabled={count === 0}>
          Choose alike…
        </Button>
      </Slip>
      <Button size="small" onClick={() => invertChoice(bench)}>
        The others
      </Button>
      <Chip
        on={frame}
        title="Around what is chosen: grips that scale, turn and slant it"
        onToggle={(on) => prefer({ frame: on })}
      >
        frame
      </Chip>
      <Chip
        on={alignThings}
        title="What is dragged keeps to the sides, middles and gaps of what lies around; Ctrl lets it go"
        onToggle={(on) => prefer({ alignThings: on })}
      >
        in line
      </Chip>
    </>
  );
}

const ways: { key: Exclude<keyof AlikeFigures, 'widthWithin' | 'colourWithin'>; label: string }[] = [
  { key: 'width', label: 'width' },
  { key: 'colour', label: 'colour' },
  { key: 'fill', label: 'fill' },
  { key: 'sheet', label: 'sheet' },
  { key: 'kind', label: 'straight or curved' },
  { key: 'closed', label: 'open or closed' },
];

/** By what lines are alike: all that is ticked, together. */
function AlikeForm() {
  const bench = useBench();
  const alike = usePreference('alike');
  const set = (some: Partial<AlikeFigures>): void => preferIn('alike', some);
  return (
    <div className="alike">
      {ways.map(({ key, label }) => (
        <div key={key}>
          <Checkbox checked={alike[key]} onChange={(e) => set({ [key]: e.target.checked })}>
            {label}
          </Checkbox>
          {key === 'width' && alike.width && (
            <>
              <span className="option-label">within</span>
              <LengthField
                label="Difference of width"
                value={alike.widthWithin}
                unit="pt"
                min={0}
                max={1000}
                onCommit={(v) => set({ widthWithin: v })}
              />
            </>
          )}
          {key === 'colour' && (alike.colour || alike.fill) && (
            <>
              <span className="option-label">within</span>
              <NumberField
                label="Difference of colour"
                value={alike.colourWithin}
                min={0}
                max={255}
                unit="of 255"
                onCommit={(v) => set({ colourWithin: v })}
              />
            </>
          )}
        </div>
      ))}
      <Button type="primary" size="small" disabled={!ways.some((w) => alike[w.key])} onClick={() => chooseAlike(bench)}>
        Choose
      </Button>
    </div>
  );
}
