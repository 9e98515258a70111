import { openAhead } from '@/bench/ahead';
import { askBench } from '@/bench/askBench';

// What a drawing's page needs most is on its way before the page itself is made; what does not come, whoever shows it is told.
const id = /^\/drawing\/([^/]+)$/.exec(location.pathname)?.[1];
if (id) {
  openAhead(decodeURIComponent(id));
  askBench().catch(() => undefined);
}
