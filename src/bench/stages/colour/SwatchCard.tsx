'use client';

import { Button } from 'antd';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { harmonies, harmony, type Harmony } from '@/core/colour/harmonies';
import type { Swatch } from '@/core/drawing/paint';
import { addSwatches, joinSwatches, removeSwatches, setSwatch, swatchesOf, swatchUses } from '@/core/edits/palette';
import { ColourField } from '@/ui/ColourField';
import { formatCount } from '@/ui/format';
import { NameField } from '@/ui/NameField';
import { PickField } from '@/ui/PickField';
import { useBench, useBenchState, useBenchStateLater } from '../../benchContext';

/** One swatch: its colour, name and group; how much it is used; colours that go with it. */
export function SwatchCard({ swatch, onGone }: { swatch: Swatch; onGone: () => void }) {
  const bench = useBench();
  const reading = useBenchState((s) => s.reading);
  const used = useBenchStateLater((s) => swatchUses(s.drawing).get(swatch.id) ?? 0);
  const others = useBenchState((s) => swatchesOf(s.drawing)).filter((s) => s.id !== swatch.id);
  const [naming, setNaming] = useState<'name' | 'group' | null>(null);
  const [kind, setKind] = useState<Harmony>('opposite');
  const set = (sides: Partial<Omit<Swatch, 'id'>>): void =>
    void bench.commit(setSwatch(bench.getState().drawing, swatch.id, sides));
  const named = (key: 'name' | 'group', empty: string) =>
    naming === key ? (
      <NameField
        label={key === 'name' ? 'Name of the swatch' : 'Group of the swatch'}
        value={swatch[key] ?? ''}
        onDone={(text) => {
          setNaming(null);
          if (text !== null) set({ [key]: text });
        }}
      />
    ) : (
      <button type="button" className="name" disabled={reading} onClick={() => setNaming(key)}>
        {swatch[key] || empty}
      </button>
    );
  const fresh = harmony(swatch.colour, kind);
  return (
    <div className="card" role="group" aria-label="This swatch">
      <div className="row">
        <ColourField
          label="Colour of the swatch"
          value={swatch.colour}
          disabled={reading}
          onCommit={(colour) => set({ colour })}
        />
        {named('name', 'without a name')}
      </div>
      <div className="row">
        <span>Group</span>
        {named('group', 'none')}
        {swatch.group && (
          <Button size="small" disabled={reading} onClick={() => set({ group: '' })}>
            out
          </Button>
        )}
      </div>
      <div className="row">
        <span>{used === 0 ? 'Not used yet' : `Used by ${formatCount(used, 'item')}`}</span>
        <Button
          size="small"
          disabled={reading}
          onClick={() => {
            bench.commit(removeSwatches(bench.getState().drawing, new Set([swatch.id])));
            onGone();
          }}
        >
          Take away
        </Button>
      </div>
      {others.length > 0 && (
        <PickField
          aria-label="Join it with another swatch"
          placeholder="join it with…"
          value={null}
          disabled={reading}
          options={others.map((s) => ({ value: s.id, label: `${s.name} ${s.colour}` }))}
          onChange={(to: string) => {
            bench.commit(joinSwatches(bench.getState().drawing, new Map([[swatch.id, to]])));
            onGone();
          }}
        />
      )}
      <div className="row">
        <PickField
          aria-label="Colours that go with it"
          value={kind}
          options={harmonies.map((value) => ({ value, label: value }))}
          onChange={(v) => setKind(v)}
          style={{ flex: 1, minWidth: 0 }}
        />
        {fresh.map((c, i) => (
          <i key={i} className="sample" style={{ background: c }} title={c} />
        ))}
        <Button
          size="small"
          disabled={reading}
          onClick={() =>
            bench.commit(
              addSwatches(
                bench.getState().drawing,
                fresh.map((colour) => ({ colour, ...(swatch.group && { group: swatch.group }) })),
                () => nanoid(10),
              ),
            )
          }
        >
          Add
        </Button>
      </div>
    </div>
  );
}
