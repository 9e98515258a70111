import { askOnce } from '@/ui/askOnce';

/**
 * The bench's code, asked for once from wherever it is wanted: imported in several places, it would come in as many pieces as
 * there are ways to it.
 */
export const askBench = askOnce(() => import('./BenchPage'));
