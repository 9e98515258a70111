'use client';

import { outlineOf } from '@/core/drawing/outline';
import { Button } from 'antd';
import { nanoid } from 'nanoid';
import { findItem } from '@/core/drawing/find';
import { isGroup } from '@/core/drawing/items';
import {
  lookNamed,
  lookOf,
  nameOfLook,
  pictureInside,
  pictureLooks,
  setPictureLook,
  type PictureLook,
} from '@/core/edits/cutOut';
import type { Drawing, Picture } from '@/core';
import { groupInside, keepInside, releaseInside, shapeFor } from '@/core/edits/keepInside';
import { Chip, Choice } from '@/ui/Chip';
import { ColourField } from '@/ui/ColourField';
import { formatCount } from '@/ui/format';
import { useBench, useBenchState, useBenchStateLater } from '../../benchContext';
import { chosenIds, onlyChosen } from '../../state/chosen';
import { TwoToneFields } from '../prepare/TwoToneFields';

const freshId = (): string => nanoid(12);

/** Things held inside of a shape: a closed line, or a flat. Drawn straight into it; a picture cut out by it. */
export function InsideCard() {
  const into = useBenchState((s) => s.into);
  const lines = useBenchState((s) => s.lines);
  const flats = useBenchState((s) => s.flats);
  const drawing = useBenchStateLater((s) => s.drawing);
  const ids = new Set(chosenIds({ lines, flats }));
  const only = onlyChosen({ lines, flats });
  const item = only === null ? undefined : findItem(drawing, only)?.item;
  const own = item && outlineOf(item) ? item.id : null;
  const around = shapeFor(drawing, ids);
  const shape = own ?? around ?? into;
  if (shape === null && ids.size === 0) return null;
  const isOwn = shape !== null && shape === own;
  return (
    <div className="card" role="group" aria-label="Keep inside">
      <div className="row">
        <b>Keep inside</b>
        <span>{shape === null ? 'no shape here' : isOwn ? `this ${item?.kind ?? 'line'}` : 'the shape beneath'}</span>
      </div>
      {shape === null && (
        <p className="quiet">
          Things are held inside of a closed line or a flat. There is none beneath what is chosen.
        </p>
      )}
      {around !== null && <KeepButton ids={ids} shape={around} isOwn={isOwn} />}
      {shape !== null && <ShapeDeeds shape={shape} drawing={drawing} />}
    </div>
  );
}

/** Keeps what is chosen inside of a shape. */
function KeepButton({ ids, shape, isOwn }: { ids: ReadonlySet<string>; shape: string; isOwn: boolean }) {
  const bench = useBench();
  const reading = useBenchState((s) => s.reading);
  const count = [...ids].filter((id) => id !== shape).length;
  return (
    <Button
      size="small"
      disabled={reading}
      onClick={() =>
        bench.commit(keepInside(bench.getState().drawing, ids, shape, freshId), null, 'They are inside of it already.')
      }
    >
      {isOwn ? 'Keep it inside the shape beneath' : `Keep ${count === 1 ? 'it' : count} inside`}
    </Button>
  );
}

/** What can be done with a shape: drawn into, the picture cut out by it, what it holds let go. */
function ShapeDeeds({ shape, drawing }: { shape: string; drawing: Drawing }) {
  const bench = useBench();
  const reading = useBenchState((s) => s.reading);
  const into = useBenchState((s) => s.into);
  const held = groupInside(drawing, shape)?.item;
  const group = held && isGroup(held) ? held : null;
  const picture = group?.items.find((i) => i.kind === 'picture');
  const r = drawing.references.findLast((x) => x.visible);
  return (
    <>
      <Chip
        on={into === shape}
        disabled={reading}
        title="New lines come to lie inside of it"
        onToggle={(on) => bench.setState((s) => ({ into: on ? shape : null, tool: on ? 'pencil' : s.tool }))}
      >
        draw into it
      </Chip>
      {r && !picture && (
        <Button
          size="small"
          disabled={reading}
          onClick={() => bench.commit(pictureInside(bench.getState().drawing, r, shape, freshId))}
        >
          Cut the picture out
        </Button>
      )}
      {picture?.kind === 'picture' && <PictureFields picture={picture} />}
      {group && (
        <div className="row">
          <span>{formatCount(group.items.length, 'thing')} in it</span>
          <Button
            size="small"
            disabled={reading}
            onClick={() => {
              bench.commit(releaseInside(bench.getState().drawing, group.id));
              bench.setState({ into: null });
            }}
          >
            Release
          </Button>
        </div>
      )}
    </>
  );
}

const lookWords: Record<PictureLook, string> = { own: 'its colours', one: 'one', two: 'two' };

/** How a picture that is cut out is seen. */
function PictureFields({ picture }: { picture: Picture }) {
  const bench = useBench();
  const reading = useBenchState((s) => s.reading);
  const look = lookOf(picture);
  const edit = (to: ReturnType<typeof lookOf>) => setPictureLook(bench.getState().drawing, picture.id, to);
  return (
    <>
      <Choice
        label="The picture in"
        options={pictureLooks.map((value) => ({ value, label: lookWords[value] }))}
        value={nameOfLook(picture)}
        disabled={reading}
        onChange={(name) => bench.commit(setPictureLook(bench.getState().drawing, picture.id, lookNamed(name)))}
      />
      {look?.kind === 'tint' && (
        <ColourField
          label="The picture’s colour"
          value={look.colour}
          disabled={reading}
          onCommit={(colour) => bench.commit(edit({ ...look, colour }))}
        />
      )}
      {look?.kind === 'twoTone' && (
        <TwoToneFields
          c={look}
          disabled={reading}
          show={(c) => bench.show(edit(c))}
          set={(c) => bench.commit(edit(c))}
        />
      )}
    </>
  );
}
