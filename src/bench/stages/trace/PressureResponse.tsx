'use client';

import { Button } from 'antd';
import { dequal } from 'dequal';
import type { Line } from '@/core';
import { setMarks } from '@/core/edits/strokes';
import { findLine } from '@/core/drawing/find';
import { firstResponses, type Response } from '@/core/ink/pressure';
import { Slip } from '@/ui/Slip';
import { useBench, usePreference } from '../../benchContext';
import { drawnOf, keepDrawn } from '../../state/fitting';
import { prefer } from '../../state/preferences';
import { marksByPressure } from '../../tools/pencilStrokes';
import { ResponsePlot } from './ResponsePlot';

/**
 * How widths answer to a pen's pressure: a curve that is drawn. The chosen line answers anew, as long as it is as the
 * pencil drew it.
 */
export function PressureResponse({ line }: { line: Line | undefined }) {
  const bench = useBench();
  const response = usePreference('response');
  const name = firstResponses.find((r) => dequal(r.response, response))?.name ?? 'as drawn';

  const answer = (next: Response, isLast: boolean): void => {
    prefer({ response: next });
    const own = line && findLine(bench.getState().drawing, line.id)?.line;
    const drawn = own && drawnOf(own);
    if (!own || !drawn || !drawn.made.some((made) => dequal(made, own.marks ?? []))) return;
    const marks = marksByPressure(drawn.pressed, own.style.width, own.runs[0].closed);
    const edit = setMarks(bench.getState().drawing, new Map([[own.id, marks]]), 'Answer to pressure');
    if (!isLast) return void bench.show(edit);
    keepDrawn(own.runs, { ...drawn, made: [...drawn.made, marks] });
    bench.commit(edit);
  };

  return (
    <Slip
      placement="top"
      title="How widths answer to pressure"
      content={() => (
        <div className="response">
          <ResponsePlot response={response} onChange={answer} />
          <div className="ready" role="group" aria-label="Responses">
            {firstResponses.map((r) => (
              <button
                type="button"
                key={r.name}
                className={r.name === name ? 'chip on' : 'chip'}
                aria-pressed={r.name === name}
                onClick={() => answer(r.response, true)}
              >
                {r.name}
              </button>
            ))}
          </div>
        </div>
      )}
    >
      <Button size="small" title="How widths answer to pressure: a curve that is drawn">
        {name}…
      </Button>
    </Slip>
  );
}
