import { useDeferredValue } from 'react';
import { useBenchState } from '../../benchContext';

/** Whether any line is chosen. Cards that come and go do so when there is time: a hand can take hold of the next line at once. */
export const useIsChosen = (): boolean => useDeferredValue(useBenchState((s) => s.lines.size > 0));
