'use client';

import { DeleteOutlined } from '@ant-design/icons';
import { Button, Checkbox } from 'antd';
import { useState } from 'react';
import type { Delivery } from '@/core/deliver/delivery';
import { NameField } from '@/ui/NameField';
import { PickField } from '@/ui/PickField';
import { Slip } from '@/ui/Slip';
import { usePreference } from '../../benchContext';
import { prefer, preferences, type Preferences } from '../../state/preferences';
import type { NamedDelivery } from '../../state/files';

type Preset = Preferences['presets'][number];
const setPresets = (change: (presets: readonly Preset[]) => readonly Preset[]): void =>
  prefer({ presets: change(preferences.getState().presets) });

type Props = {
  wanted: Delivery;
  set: (some: Partial<Delivery>) => void;
  /** Has all that is picked made in one go. */
  make: (deliveries: readonly NamedDelivery[]) => void;
  disabled: boolean;
};

/** Choices kept by name: taken up again, or several of them made at once. */
export function Presets({ wanted, set, make, disabled }: Props) {
  const presets = usePreference('presets');
  const [isNaming, setNaming] = useState(false);
  const { chosen: _, ...own } = wanted;
  const current = presets.find((p) => JSON.stringify(p.wanted) === JSON.stringify(own));
  const keep = (name: string | null): void => {
    setNaming(false);
    if (name) setPresets((all) => [...all.filter((p) => p.name !== name), { name, wanted: own }]);
  };
  if (isNaming) return <NameField label="Name of the preset" value="" onDone={keep} />;
  return (
    <div className="row presets">
      <PickField
        aria-label="Preset"
        placeholder={presets.length === 0 ? 'no presets yet' : 'presets'}
        disabled={presets.length === 0}
        value={current?.name}
        options={presets.map((p) => ({ value: p.name, label: p.name }))}
        onChange={(name) => set(presets.find((p) => p.name === name)!.wanted)}
      />
      <Button size="small" disabled={!!current} title="Keep these choices by name" onClick={() => setNaming(true)}>
        Keep
      </Button>
      <Slip
        title="Several files at once"
        placement="leftTop"
        content={(close) => <Several presets={presets} disabled={disabled} make={(d) => (close(), make(d))} />}
      >
        <Button size="small" disabled={presets.length === 0}>
          Several
        </Button>
      </Slip>
    </div>
  );
}

function Several({ presets, disabled, make }: { presets: readonly Preset[] } & Pick<Props, 'disabled' | 'make'>) {
  const [picked, setPicked] = useState<ReadonlySet<string>>(() => new Set(presets.map((p) => p.name)));
  const some = presets.filter((p) => picked.has(p.name));
  const turn = (name: string, on: boolean): void =>
    setPicked((before) => new Set(on ? [...before, name] : [...before].filter((n) => n !== name)));
  return (
    <div className="several">
      {presets.map((p) => (
        <div className="row" key={p.name}>
          <Checkbox checked={picked.has(p.name)} onChange={(e) => turn(p.name, e.target.checked)}>
            {p.name}
          </Checkbox>
          <Button
            size="small"
            type="text"
            icon={<DeleteOutlined />}
            aria-label={`Forget ${p.name}`}
            title="Forget"
            onClick={() => setPresets((all) => all.filter((x) => x.name !== p.name))}
          />
        </div>
      ))}
      <Button type="primary" block disabled={disabled || some.length === 0} onClick={() => make(some)}>
        Make {some.length === 1 ? 'it' : `all ${some.length}, as a zip`}
      </Button>
    </div>
  );
}
