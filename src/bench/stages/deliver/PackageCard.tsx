'use client';

import { Button } from 'antd';
import { packageHref } from '../../state/api';
import { useBenchState } from '../../benchContext';

/** The drawing as it can be carried to another machine. */
export function PackageCard() {
  const id = useBenchState((s) => s.id);
  const title = useBenchState((s) => s.title);
  const saved = useBenchState((s) => s.save.kind === 'saved');
  return (
    <div className="card" role="group" aria-label="Package">
      <div className="row">
        <b>Package</b>
      </div>
      <p className="quiet">The drawing with its history, versions and pictures, for another machine.</p>
      <Button block disabled={!saved} href={saved ? packageHref([id]) : undefined} download={`${title}.yquill`}>
        {saved ? 'Save the package' : 'Waiting for the last change'}
      </Button>
    </div>
  );
}
