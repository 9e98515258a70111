'use client';

import { Button } from 'antd';
import { firstDelivery } from '@/core/deliver/delivery';
import { isRasterMotion, MOST_FRAMES, type MotionKind } from '@/core/replay/motion';
import { formatNumber } from '@/ui/format';
import { NumberField } from '@/ui/NumberField';
import { PickField } from '@/ui/PickField';
import { useBench, useBenchState, usePreference } from '../../benchContext';
import { paceOf, timelineNow } from '../../commands/replay';
import { beginFiles } from '../../state/files';
import { preferIn } from '../../state/preferences';
import { Row } from '../shared/LineCard';
import { MadeFiles } from './MadeFiles';
import { useFileJobs } from './useFileJobs';

const kinds: readonly { value: MotionKind; label: string }[] = [
  { value: 'moving svg', label: 'SVG that draws itself' },
  { value: 'webp', label: 'WebP that moves' },
  { value: 'gif', label: 'GIF that moves' },
  { value: 'frames', label: 'Numbered PNG pictures' },
  { value: 'svg in order', label: 'SVG in drawing order, still' },
];

/** The replay as a file. */
export function MotionCard() {
  const bench = useBench();
  const id = useBenchState((s) => s.id);
  const saved = useBenchState((s) => s.save.kind === 'saved');
  const drawing = useBenchState((s) => s.drawing);
  const motion = usePreference('motion');
  const pace = usePreference('replay');
  const { jobs, look } = useFileJobs(id);
  const { total } = timelineNow(drawing, paceOf(pace));
  const isRaster = isRasterMotion(motion.as);
  const count = Math.ceil(total * motion.fps);
  const tooMany = isRaster && count > MOST_FRAMES;
  const make = (): void => {
    const wanted = { ...firstDelivery, ground: isRaster };
    // As long as it is seen here, whether that was set or comes of a speed.
    const length = Math.min(600, Math.max(0.5, total));
    const asked = { ...motion, length, pause: pace.pause };
    void beginFiles(id, [{ name: '', wanted, motion: asked }])
      .then(look)
      .catch((e: Error) => bench.tell(e.message, undefined, 'warning'));
  };
  return (
    <>
      <div className="card" role="group" aria-label="Save the replay">
        <div className="row">
          <b>Save the replay</b>
        </div>
        <PickField<MotionKind>
          aria-label="Kind of replay"
          value={motion.as}
          options={[...kinds]}
          onChange={(as) => preferIn('motion', { as })}
        />
        {isRaster && (
          <div className="fields">
            <span className="option-label">px wide</span>
            <NumberField
              label="Width of the replay"
              value={motion.width}
              min={16}
              max={4_000}
              onCommit={(v) => preferIn('motion', { width: Math.round(v) })}
            />
            <span className="option-label">a second</span>
            <NumberField
              label="Pictures a second"
              value={motion.fps}
              min={1}
              max={60}
              onCommit={(fps) => preferIn('motion', { fps })}
            />
          </div>
        )}
        {isRaster && <Row what="Pictures" figure={formatNumber(count)} />}
        {tooMany && (
          <p className="empty">No more than {MOST_FRAMES} can be made: take fewer a second, or a shorter replay.</p>
        )}
        <Button type="primary" block disabled={!saved || total === 0 || tooMany} onClick={make}>
          {saved ? 'Make it' : 'Waiting for the last change'}
        </Button>
      </div>
      <MadeFiles jobs={jobs ?? []} look={look} />
    </>
  );
}
