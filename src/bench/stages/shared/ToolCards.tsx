'use client';

import { useDeferredValue } from 'react';
import { useBenchState } from '../../benchContext';
import { toolOf } from '../../tools/registry';

/** The cards of the tool in hand. */
export function ToolCards() {
  const tool = useDeferredValue(useBenchState((s) => s.tool));
  const Own = toolOf(tool).cards;
  return Own ? <Own /> : null;
}
