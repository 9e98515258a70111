'use client';

import { CaretRightOutlined, CloseOutlined, PauseOutlined } from '@ant-design/icons';
import { Button, Segmented, Slider } from 'antd';
import { useEffect } from 'react';
import { formatNumber } from '@/ui/format';
import { NumberField } from '@/ui/NumberField';
import { useBench, useBenchState, usePreference } from '../../benchContext';
import { halt, leave, paceOf, play, playHistory, seek, timelineNow } from '../../commands/replay';
import { preferIn } from '../../state/preferences';

/** The replay: run, halted, scrubbed; at a speed or to a length; or the history as it truly was. */
export function ReplayCard() {
  const bench = useBench();
  const drawing = useBenchState((s) => s.drawing);
  const replay = useBenchState((s) => s.replay);
  const pace = usePreference('replay');
  const runs = replay?.runs === true;
  useEffect(() => () => leave(bench), [bench]);
  const { total } = timelineNow(drawing, paceOf(pace));
  const at = replay?.kind === 'order' ? Math.min(replay.at, total) : 0;
  const set = (some: Partial<typeof pace>): void => {
    preferIn('replay', some);
    if (bench.getState().replay?.kind === 'order') seek(bench, 0);
  };
  return (
    <div className="card" role="group" aria-label="Replay">
      <div className="row">
        <b>Replay</b>
        <span>
          {formatNumber(at, 1)} of {formatNumber(total, 1)} s
        </span>
      </div>
      <div className="row">
        <Button
          size="small"
          type="primary"
          icon={runs ? <PauseOutlined /> : <CaretRightOutlined />}
          disabled={total === 0}
          onClick={() => (runs ? halt(bench) : play(bench))}
        >
          {runs ? 'Halt' : 'Play'}
        </Button>
        <Slider
          className="scrub"
          min={0}
          max={Math.max(0.01, total)}
          step={0.01}
          value={at}
          disabled={total === 0}
          tooltip={{ open: false }}
          ariaLabelForHandle="Time of the replay"
          onChange={(t) => seek(bench, t)}
        />
        <Button
          size="small"
          type="text"
          icon={<CloseOutlined />}
          disabled={!replay}
          aria-label="Back to the drawing"
          title="Back to the drawing"
          onClick={() => leave(bench)}
        />
      </div>
      <Segmented<typeof pace.by>
        block
        size="small"
        aria-label="How fast"
        value={pace.by}
        options={[
          { value: 'length', label: 'To a length' },
          { value: 'speed', label: 'At a speed' },
        ]}
        onChange={(by) => set({ by })}
      />
      <div className="fields">
        {pace.by === 'length' ? (
          <>
            <span className="option-label">seconds</span>
            <NumberField
              label="Seconds"
              value={pace.length}
              min={0.5}
              max={600}
              digits={1}
              onCommit={(length) => set({ length })}
            />
          </>
        ) : (
          <>
            <span className="option-label">px a second</span>
            <NumberField
              label="Px a second"
              value={pace.speed}
              min={1}
              max={100_000}
              onCommit={(speed) => set({ speed })}
            />
          </>
        )}
        <span className="option-label">rest, s</span>
        <NumberField
          label="Rest after each part"
          value={pace.pause}
          min={0}
          max={10}
          digits={1}
          onCommit={(pause) => set({ pause })}
        />
      </div>
      <Button
        size="small"
        title="All that was ever done, from the first state on"
        onClick={() => void playHistory(bench, pace.length)}
      >
        As it truly came about
      </Button>
    </div>
  );
}
