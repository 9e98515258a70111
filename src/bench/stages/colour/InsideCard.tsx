'use client';

import { outlineOf } from '@/core/drawing/outline';
import { Button } from 'antd';
import { nanoid } from 'nanoid';
import { findItem } from '@/core/drawing/find';
import { isGroup, linesIn } from '@/core/drawing/items';
import {
  lookNamed,
  lookOf,
  nameOfLook,
  pictureInside,
  pictureLooks,
  setPictureLook,
  type PictureLook,
} from '@/core/edits/cutOut';
import type { Picture } from '@/core';
import { groupInside, keepInside, releaseInside, shapeFor } from '@/core/edits/keepInside';
import { Chip, Choice } from '@/ui/Chip';
import { ColourField } from '@/ui/ColourField';
import { formatCount } from '@/ui/format';
import { useBench, useBenchState, useBenchStateLater } from '../../benchContext';
import { TwoToneFields } from '../prepare/TwoToneFields';

const freshId = (): string => nanoid(12);

/** Things held inside of a shape: a closed line, or a flat. Drawn straight into it; a picture cut out by it. */
export function InsideCard() {
  const bench = useBench();
  const reading = useBenchState((s) => s.reading);
  const into = useBenchState((s) => s.into);
  const lines = useBenchState((s) => s.lines);
  const flat = useBenchState((s) => s.flat);
  const drawing = useBenchStateLater((s) => s.drawing);
  const only = lines.size === 1 && !flat ? [...lines][0] : null;
  const own = flat ?? (only !== null && outlineOfId(only) ? only : null);
  const shape = own ?? (lines.size > 0 ? shapeFor(drawing, lines) : null) ?? into;
  function outlineOfId(id: string): boolean {
    const item = findItem(drawing, id)?.item;
    return item !== undefined && outlineOf(item) !== null;
  }
  if (shape === null && lines.size === 0) return null;
  const held = shape === null ? undefined : groupInside(drawing, shape);
  const group = held && isGroup(held.item) ? held.item : null;
  const others = [...lines].filter((id) => id !== shape).length;
  const shapeWord = shape !== null && shape === flat ? 'this flat' : shape === only ? 'this line' : 'the shape beneath';
  const r = drawing.references.findLast((x) => x.visible);
  const picture = group?.items.find((i) => i.kind === 'picture');
  return (
    <div className="card" role="group" aria-label="Keep inside">
      <div className="row">
        <b>Keep inside</b>
        <span>{shape === null ? 'no shape here' : shapeWord}</span>
      </div>
      {shape === null && (
        <p className="quiet">Lines are held inside of a closed line or a flat. There is none beneath what is chosen.</p>
      )}
      {shape !== null && (
        <>
          {others > 0 && (
            <Button
              size="small"
              disabled={reading}
              onClick={() =>
                bench.commit(
                  keepInside(bench.getState().drawing, lines, shape, freshId),
                  null,
                  'They are inside of it already.',
                )
              }
            >
              Keep {formatCount(others, 'line')} inside
            </Button>
          )}
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
              <span>{inIt(linesIn(group.items).length, group.items.length)}</span>
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
      )}
    </div>
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

const inIt = (lines: number, items: number): string =>
  lines === 0 ? formatCount(items, 'thing') : `${formatCount(lines, 'line')} in it`;
