'use client';

import { useEffect, useMemo } from 'react';
import type { Flat } from '@/core';
import { colourName } from '@/core/colour/colourName';
import { MOST_STEPS, FEWEST_STEPS } from '@/core/colour/tone';
import { seenFlats } from '@/core/edits/flats';
import { toneDistances, tooNear, type ToneDistance } from '@/core/edits/toneDistance';
import { opaqueColourOf } from '@/core/scene/ink';
import { Amount } from '@/ui/Amount';
import { Chip } from '@/ui/Chip';
import { formatCount } from '@/ui/format';
import { later } from '@/ui/later';
import { useBench, useBenchState, useBenchStateLater, usePreference } from '../../benchContext';
import { visitFlat } from '../../commands/flats';
import { HoldButton } from '../../panels/HoldButton';
import { findTones, tonesBeneath } from '../../state/beneath';
import { prefer, preferIn } from '../../state/preferences';
import { useStored } from '../../useStored';

/** The chart comes when it is first looked at. */
const TonePlot = later(() => import('./TonePlot').then((m) => m.TonePlot), 150);

/** So many are listed. */
const LISTED = 8;
const NEAR = 4;
const MOST_COMPARED = 1_000;

/** How light the flats are beside the picture: seen squinting, as figures, as a plot; neighbours that are too near. */
export function TonesCard() {
  return (
    <>
      <SquintCard />
      <DistancesCard />
    </>
  );
}

/** Drawing and picture in the same few greys. */
function SquintCard() {
  const bench = useBench();
  const on = useBenchState((s) => s.squinting);
  const kind = useBenchState((s) => s.compare?.kind ?? null);
  const { steps, soft } = usePreference('squint');
  return (
    <div className="card" role="group" aria-label="Squint">
      <div className="row">
        <b>Squint</b>
        <span className="buttons">
          <Chip
            on={on}
            title="Drawing and picture in the same few greys"
            onToggle={(v) => bench.setState({ squinting: v })}
          >
            in greys
          </Chip>
          <HoldButton
            className="chip"
            label="Hold to squint"
            title="Hold, or hold Y"
            isOn={(s) => s.squinting}
            set={(b, v) => b.setState({ squinting: v })}
          >
            hold
          </HoldButton>
        </span>
      </div>
      <Amount
        label="Greys"
        value={steps}
        min={FEWEST_STEPS}
        max={MOST_STEPS}
        step={1}
        onChange={(v) => preferIn('squint', { steps: Math.round(v) })}
      />
      <Amount label="Soft" value={soft} min={0} max={12} step={1} onChange={(v) => preferIn('squint', { soft: v })} />
      <div className="buttons" role="group" aria-label="Picture beside the drawing">
        <Chip
          on={kind === 'beside'}
          title="The picture beside the drawing"
          onToggle={(v) => bench.setState({ compare: v ? { kind: 'beside' } : null })}
        >
          side by side
        </Chip>
        <Chip
          on={kind === 'wipe'}
          title="The picture to the left of a border that is dragged"
          onToggle={(v) => bench.setState({ compare: v ? { kind: 'wipe', at: 0.5 } : null })}
        >
          wiped
        </Chip>
      </div>
    </div>
  );
}

const figure = (distance: number): string => `${distance < 0 ? '−' : '+'}${Math.abs(distance).toFixed(2)}`;
const word = (distance: number): string =>
  Math.abs(distance) < 0.02 ? 'as light' : distance > 0 ? 'too light' : 'too dark';

/** How far each flat's tone is from the picture's, the worst first. */
function DistancesCard() {
  const bench = useBench();
  const drawing = useBenchStateLater((s) => s.preview ?? s.drawing);
  const chosen = useBenchState((s) => s.flats);
  const wash = usePreference('toneWash');
  const found = useStored(tonesBeneath, (t) => t.found);
  const failed = useStored(tonesBeneath, (t) => t.failed);
  const flats = useMemo(() => seenFlats(drawing), [drawing]);
  useEffect(() => {
    const timer = setTimeout(() => void findTones(drawing, flats), 120);
    return () => clearTimeout(timer);
  }, [drawing, flats]);
  const distances = useMemo(() => toneDistances(drawing, flats, found), [drawing, flats, found]);
  // Of very many the borders are not looked for.
  const near = useMemo(() => (flats.length > MOST_COMPARED ? [] : tooNear(drawing, flats)), [drawing, flats]);
  if (flats.length === 0)
    return (
      <div className="card" role="group" aria-label="Tone distance">
        <p className="empty">No area is filled yet: there is no tone to measure. Pour some flats first.</p>
      </div>
    );
  const nameOf = (f: Flat): string => f.name ?? colourName(opaqueColourOf(drawing, f.fill));
  return (
    <>
      <div className="card" role="group" aria-label="Tone distance">
        <div className="row">
          <b>Tone distance</b>
          <Chip on={wash} title="Hatched over the flats, with the figures" onToggle={(v) => prefer({ toneWash: v })}>
            on the page
          </Chip>
        </div>
        {failed && <p className="quiet">The picture could not be read.</p>}
        {!failed && distances.length === 0 && <p className="quiet">There is no picture beneath the flats.</p>}
        {distances.length > 0 && (
          <>
            <p className="quiet">{summary(distances)}</p>
            <TonePlot distances={distances} chosen={chosen} onGo={(id) => visitFlat(bench, id)} />
            <ol className="tone-list" aria-label="The worst first">
              {distances.slice(0, LISTED).map((t) => (
                <li key={t.flat.id}>
                  <button type="button" onClick={() => visitFlat(bench, t.flat.id)}>
                    <i style={{ background: t.colour }} />
                    <span>{nameOf(t.flat)}</span>
                    <em>{word(t.distance)}</em>
                    <b>{figure(t.distance)}</b>
                  </button>
                </li>
              ))}
            </ol>
          </>
        )}
      </div>
      {near.length > 0 && (
        <div className="card" role="group" aria-label="Neighbours too near in tone">
          <b>Neighbours too near in tone</b>
          <ol className="tone-list">
            {near.slice(0, NEAR).map(({ a, b, by }) => (
              <li key={`${a.id} ${b.id}`}>
                <button type="button" onClick={() => visitFlat(bench, a.id)}>
                  <i style={{ background: opaqueColourOf(drawing, a.fill) }} />
                  <i style={{ background: opaqueColourOf(drawing, b.fill) }} />
                  <span>
                    {nameOf(a)}, {nameOf(b)}
                  </span>
                  <b>{by.toFixed(2)}</b>
                </button>
              </li>
            ))}
          </ol>
          {near.length > NEAR && <span className="quiet">and {near.length - NEAR} more</span>}
        </div>
      )}
    </>
  );
}

const FAR = 0.1;

/** The mean over all that the flats cover, and how many are far off. */
function summary(distances: readonly ToneDistance[]): string {
  const pixels = distances.reduce((n, t) => n + t.pixels, 0);
  const mean = distances.reduce((sum, t) => sum + t.pixels * Math.abs(t.distance), 0) / Math.max(1, pixels);
  const far = distances.filter((t) => Math.abs(t.distance) > FAR).length;
  return `${mean.toFixed(2)} in the mean; ${far === 0 ? 'none' : formatCount(far, 'flat')} off by more than ${FAR}.`;
}
