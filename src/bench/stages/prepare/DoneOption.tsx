'use client';

import { Button } from 'antd';
import { takeTool } from '../../commands/desk';
import { useBench } from '../../benchContext';

/** Back from a correction on the page to placing. */
export function DoneOption() {
  const bench = useBench();
  return (
    <Button type="primary" onClick={() => takeTool(bench, 'place')}>
      Done
    </Button>
  );
}
