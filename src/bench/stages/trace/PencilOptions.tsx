'use client';

import { Slider } from 'antd';
import { useRef } from 'react';
import { runOfStroke } from '@/core/assist/pencilStroke';
import { reshapeLines } from '@/core/edits/lines';
import { findLine } from '@/core/drawing/find';
import { runsOnGrid } from '@/core/drawing/grid';
import { Chip } from '@/ui/Chip';
import { useBench, useBenchStateLater, usePreference } from '../../benchContext';
import { drawnOf, fitInWorker, keepDrawn } from '../../state/fitting';
import { prefer } from '../../state/preferences';
import { MirrorOption } from './MirrorOption';
import { NextStyle } from './NextStyle';
import { SnapChip } from './PenOptions';
import { PressureResponse } from './PressureResponse';

/** The pencil: how much it smooths, also of the chosen line as long as it is as it was drawn. */
export function PencilOptions() {
  const bench = useBench();
  const smoothing = usePreference('smoothing');
  const pressure = usePreference('pressure');
  const redraw = usePreference('redraw');
  const only = useBenchStateLater((s) => (s.lines.size === 1 ? findLine(s.drawing, [...s.lines][0])?.line : undefined));
  const drawn = only && drawnOf(only);
  const asked = useRef(0);

  const refit = async (value: number, isLast: boolean): Promise<void> => {
    prefer({ smoothing: value });
    if (!only || !drawn) return;
    const turn = ++asked.current;
    const cubics = await fitInWorker(drawn.stroke, value * drawn.unit).catch((e: Error) => {
      bench.tell(`The line keeps its smoothing: ${e.message}.`, undefined, 'warning');
      return null;
    });
    // Only the newest answer counts, and only for the line as it was.
    const now = findLine(bench.getState().drawing, only.id)?.line;
    if (!cubics || turn !== asked.current || now?.runs !== only.runs) return;
    const runs = runsOnGrid([runOfStroke(cubics, drawn.stroke.closed)]);
    keepDrawn(runs, drawn);
    const edit = reshapeLines(bench.getState().drawing, new Map([[only.id, runs]]), 'Smooth line');
    if (isLast) bench.commit(edit);
    else bench.show(edit);
  };

  return (
    <>
      <NextStyle />
      <label className="amount smoothing" title="How far the line may leave the hand, in px of the screen">
        <span className="option-label">{drawn ? 'Smooth this line' : 'Smooth'}</span>
        <Slider
          min={0.5}
          max={10}
          step={0.5}
          value={smoothing}
          tooltip={{ open: false }}
          ariaLabelForHandle="Smoothing"
          onChange={(v) => void refit(v, false)}
          onChangeComplete={(v) => void refit(v, true)}
        />
        <b>{smoothing} px</b>
      </label>
      <SnapChip />
      <MirrorOption />
      <Chip
        on={redraw}
        title="A stroke along the chosen line redraws that part of it (Alt held does so once)"
        onToggle={(on) => prefer({ redraw: on })}
      >
        redraw
      </Chip>
      <Chip on={pressure} title="A pen’s pressure becomes the line’s width" onToggle={(on) => prefer({ pressure: on })}>
        pressure
      </Chip>
      {pressure && <PressureResponse line={only} />}
    </>
  );
}
