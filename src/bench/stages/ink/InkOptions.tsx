'use client';

import { fromUnit } from '@/core/drawing/unit';
import { useBench, useBenchState } from '../../benchContext';
import { setWidth } from '../../commands/strokes';
import { StyleOptions } from './StyleOptions';

/** Widths at hand, pt. */
const WIDTHS = [0.5, 1, 2, 3, 5] as const;

/** The tray of the Ink stage: width, widths at hand, colour. */
export function InkOptions() {
  const bench = useBench();
  const count = useBenchState((s) => s.lines.size);
  const reading = useBenchState((s) => s.reading);
  return (
    <>
      <StyleOptions />
      {count > 0 && (
        <span className="choice" role="group" aria-label="Widths at hand">
          {WIDTHS.map((w) => (
            <button
              key={w}
              type="button"
              className="chip width"
              disabled={reading}
              title={`${w} pt`}
              onClick={(e) => {
                if (e.detail > 0) e.currentTarget.blur();
                setWidth(bench, fromUnit(w, 'pt'));
              }}
            >
              <i style={{ height: Math.max(1, w * 1.33) }} />
              {w}
            </button>
          ))}
        </span>
      )}
    </>
  );
}
