'use client';

import { Button } from 'antd';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import type { Line } from '@/core';
import { shapeMeetingEnds } from '@/core/edits/endWidths';
import * as strokes from '@/core/edits/strokes';
import { findLine } from '@/core/drawing/find';
import { firstProfiles, profileOf, type Profile } from '@/core/ink/profiles';
import { NameField } from '@/ui/NameField';
import { formatCount } from '@/ui/format';
import { chosenTally } from '../../state/chosen';
import { useBench, useBenchState, useBenchStateLater } from '../../benchContext';
import { useDeedButton } from '../../useDeedButton';
import { MarkFields } from './MarkFields';
import { ProfileShape } from './ProfileShape';
import { UnrolledStroke } from './UnrolledStroke';

const none: readonly Profile[] = [];
/** An end that misses another stroke by no more than this meets it, page units. */
const MEET = 1.5;

/** The widths along the chosen lines: unrolled and dragged, by profiles that are there or were kept, turned, evened out. */
export function ProfileCard() {
  const bench = useBench();
  const button = useDeedButton();
  const count = useBenchState((s) => s.lines.size);
  const only = useBenchState((s) => onlyLine(s.preview ?? s.drawing, s.lines));
  const marked = useBenchStateLater((s) => chosenTally(s).marked > 0);
  const kept = useBenchState((s) => s.drawing.profiles ?? none);
  const reading = useBenchState((s) => s.reading);
  const [naming, setNaming] = useState(false);
  if (count === 0) return null;
  const ids = (): string[] => [...bench.getState().lines];
  const drawing = () => bench.getState().drawing;
  const meeting = (how: 'taper' | 'full'): void => {
    const nothing = 'No end of what is chosen runs into another line.';
    bench.commit(shapeMeetingEnds(drawing(), ids(), how, MEET), null, nothing);
  };
  const keep = (name: string | null): void => {
    setNaming(false);
    const line = onlyLine(drawing(), bench.getState().lines);
    if (!name || !line?.marks?.length) return;
    const fresh: Profile = { id: nanoid(10), name: name.slice(0, 80), marks: profileOf(line.marks, line.style.width) };
    bench.commit(strokes.keepProfiles(drawing(), [...kept, fresh], `Keep profile “${fresh.name}”`));
  };
  return (
    <div className="card profile-card" role="group" aria-label="Widths">
      <div className="row">
        <b>Widths</b>
        <span>
          {only
            ? only.marks?.length
              ? formatCount(only.marks.length, 'mark')
              : 'the same throughout'
            : `${count} lines`}
        </span>
      </div>
      {only && <UnrolledStroke line={only} />}
      {only && <MarkFields line={only} />}
      <div className="profiles" role="group" aria-label="Profiles">
        {[...firstProfiles, ...kept].map((p) => (
          <button
            key={p.id}
            type="button"
            disabled={reading}
            title={`Swell what is chosen: ${p.name}`}
            onClick={() => bench.commit(strokes.applyProfile(drawing(), ids(), p))}
          >
            <ProfileShape marks={p.marks} />
            {p.name}
          </button>
        ))}
      </div>
      <div className="buttons">
        {button('even out', 'One width throughout: the mean', () => bench.commit(strokes.evenOut(drawing(), ids())), {
          disabled: !marked,
        })}
        {button(
          'turn round',
          'The widths from the other end',
          () => bench.commit(strokes.turnProfiles(drawing(), ids())),
          { disabled: !marked },
        )}
        {button('swap sides', 'The left widths on the right', () => bench.commit(strokes.swapSides(drawing(), ids())), {
          disabled: !marked,
        })}
        {only &&
          !naming &&
          button('keep as…', 'Keep this profile by name', () => setNaming(true), { disabled: !only.marks?.length })}
      </div>
      <div className="buttons">
        <span className="option-label">Ends that meet others</span>
        {button('taper', 'Ends that run into other lines come to a point', () => meeting('taper'))}
        {button('full', 'Ends that run into other lines keep their width', () => meeting('full'))}
      </div>
      {naming && <NameField label="Name of the profile" value="my profile" onDone={keep} />}
      {kept.length > 0 && (
        <ul className="kept-profiles" aria-label="Kept profiles">
          {kept.map((p) => (
            <li key={p.id}>
              <span>{p.name}</span>
              <Button
                size="small"
                type="text"
                disabled={reading}
                aria-label={`Forget ${p.name}`}
                onClick={() =>
                  bench.commit(
                    strokes.keepProfiles(
                      drawing(),
                      kept.filter((k) => k.id !== p.id),
                      `Forget profile “${p.name}”`,
                    ),
                  )
                }
              >
                forget
              </Button>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

const onlyLine = (d: Parameters<typeof findLine>[0], lines: ReadonlySet<string>): Line | null =>
  lines.size === 1 ? (findLine(d, [...lines][0])?.line ?? null) : null;
