'use client';

import { closestCenter, DndContext } from '@dnd-kit/core';
import { rectSortingStrategy, SortableContext } from '@dnd-kit/sortable';
import { Button } from 'antd';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import type { Swatch } from '@/core/drawing/paint';
import {
  addSwatches,
  joinTwins,
  linkToPalette,
  moveSwatch,
  removeSwatches,
  swatchesOf,
  twinSwatches,
  unusedSwatches,
} from '@/core/edits/palette';
import type { Edit } from '@/core/change/edit';
import { MOST_STEPS } from '@/core/colour/tone';
import { Choice } from '@/ui/Chip';
import { formatCount } from '@/ui/format';
import { NumberField } from '@/ui/NumberField';
import { useDragSensors } from '@/ui/dragSensors';
import { useBench, useBenchState, useBenchStateLater, usePreference } from '../../benchContext';
import { paletteFromPicture } from '../../commands/colours';
import { preferIn } from '../../state/preferences';
import { PaletteFiles } from './PaletteFiles';
import { SwatchCard } from './SwatchCard';
import { SwatchChip } from './SwatchChip';

const freshId = (): string => nanoid(10);
const stepChoices = [null, 2, 3, 4, 5, 6, MOST_STEPS].map((n) => ({
  value: String(n ?? 'off'),
  label: String(n ?? 'off'),
}));

/** The swatches of the drawing, by their groups; what is changed of one changes wherever it is used. */
export function PaletteCard() {
  const bench = useBench();
  const swatches = useBenchState((s) => swatchesOf(s.drawing));
  const reading = useBenchState((s) => s.reading);
  const { colour } = usePreference('pour');
  const [picked, setPicked] = useState<string | null>(null);
  const [steps, setSteps] = useState<number | null>(null);
  const one = swatches.find((s) => s.id === picked);
  const groups = [...new Set(swatches.map((s) => s.group ?? ''))].sort((a, b) => Number(a !== '') - Number(b !== ''));
  const sensors = useDragSensors();
  const pick = (s: Swatch): void => {
    setPicked(s.id === picked ? null : s.id);
    preferIn('pour', { colour: s.colour });
  };
  const has = swatches.some((s) => s.colour === colour);
  return (
    <>
      <div className="card" role="group" aria-label="Palette">
        <div className="row">
          <b>Palette</b>
          <span>{swatches.length > 0 && formatCount(swatches.length, 'swatch').replace(/swatchs$/, 'swatches')}</span>
        </div>
        {swatches.length === 0 && (
          <p className="empty">
            No swatch yet. Add the colour in hand, or have some drawn from the picture. A swatch that is changed changes
            wherever it is used.
          </p>
        )}
        <DndContext
          id="palette"
          sensors={sensors}
          collisionDetection={closestCenter}
          onDragEnd={({ active, over }) => {
            const to = swatches.findIndex((s) => s.id === over?.id);
            if (to >= 0) bench.commit(moveSwatch(bench.getState().drawing, String(active.id), to));
          }}
        >
          {groups.map((group) => {
            const own = swatches.filter((s) => (s.group ?? '') === group);
            return (
              <div key={group} className="swatch-group">
                {group && <span className="option-label">{group}</span>}
                <SortableContext items={own.map((s) => s.id)} strategy={rectSortingStrategy}>
                  <div className="swatches">
                    {own.map((s) => (
                      <SwatchChip
                        key={s.id}
                        swatch={s}
                        isOn={s.id === picked}
                        steps={steps}
                        disabled={reading}
                        onPick={() => pick(s)}
                      />
                    ))}
                  </div>
                </SortableContext>
              </div>
            );
          })}
        </DndContext>
        {swatches.length > 0 && (
          <>
            <span className="option-label">Value steps, 1 the darkest</span>
            <Choice
              label="Value steps"
              options={stepChoices}
              value={String(steps ?? 'off')}
              onChange={(v) => setSteps(v === 'off' ? null : Number(v))}
            />
          </>
        )}
        <div className="row">
          <Button
            size="small"
            disabled={reading || has}
            title={has ? 'The palette has the colour in hand' : `Add ${colour}`}
            onClick={() => bench.commit(addSwatches(bench.getState().drawing, [{ colour }], freshId))}
          >
            Add the colour in hand
          </Button>
        </div>
        <FromPicture />
        <Tidy />
        <PaletteFiles />
      </div>
      {one && <SwatchCard swatch={one} onGone={() => setPicked(null)} />}
    </>
  );
}

/** Swatches drawn from the uppermost picture that is seen. */
function FromPicture() {
  const bench = useBench();
  const r = useBenchState((s) => s.drawing.references.findLast((x) => x.visible) ?? null);
  const reading = useBenchState((s) => s.reading);
  const [count, setCount] = useState(6);
  const [busy, setBusy] = useState(false);
  if (!r) return null;
  return (
    <div className="row">
      <Button
        size="small"
        disabled={reading}
        loading={busy}
        onClick={async () => {
          setBusy(true);
          await paletteFromPicture(bench, r, count);
          setBusy(false);
        }}
      >
        Draw from the picture
      </Button>
      <NumberField label="Colours from the picture" value={count} min={1} max={64} onCommit={setCount} />
    </div>
  );
}

/** What can be tidied: unused ones, twins, and plain colours that a swatch has. */
function Tidy() {
  const bench = useBench();
  const drawing = useBenchStateLater((s) => s.drawing);
  const reading = useBenchState((s) => s.reading);
  if (swatchesOf(drawing).length === 0) return null;
  const unused = unusedSwatches(drawing).length;
  const twins = twinSwatches(drawing).reduce((n, t) => n + t.length - 1, 0);
  const links = linkToPalette(drawing).steps.length;
  const deed = (count: number, label: string, edit: () => Edit) =>
    count > 0 && (
      <Button size="small" disabled={reading} onClick={() => bench.commit(edit())}>
        {label}
      </Button>
    );
  const now = (): typeof drawing => bench.getState().drawing;
  return (
    <div className="tidy">
      {deed(unused, `Take ${unused} unused away`, () => removeSwatches(now(), new Set(unusedSwatches(now()))))}
      {deed(twins, twins === 1 ? 'Join one near-twin' : `Join ${twins} near-twins`, () => joinTwins(now()))}
      {deed(links, 'Link colours that have a swatch', () => linkToPalette(now()))}
    </div>
  );
}
