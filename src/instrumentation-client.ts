import { openAhead } from '@/bench/ahead';
import { askBench } from '@/bench/askBench';
import { drawingAt } from '@/bench/state/drawingAt';

// What a drawing's page needs most is on its way before the page itself is made; what does not come, whoever shows it is told.
const id = drawingAt(location.pathname);
if (id !== null) {
  openAhead(id);
  askBench().catch(() => undefined);
}
