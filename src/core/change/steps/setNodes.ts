import { z } from 'zod';
import { nodesSchema } from '../../drawing/nodes';
import { idSchema, type Node } from '../../drawing/schema';
import { ChangeError } from '../changeError';
import { definition } from './definition';
import { index } from './place';
import { isSame, turnedAbout } from './sides';

const nodes = nodesSchema(0, 20_000);

/** Some nodes of a run, next to each other, in place of others; those before and after them stay, and are not sent. */
export const setNodes = definition({
  schema: z.strictObject({
    step: z.literal('setNodes'),
    sheet: idSchema,
    id: idSchema,
    run: index,
    at: index,
    before: nodes,
    after: nodes,
  }),
  apply(draft, { sheet, id, run, at, before, after }) {
    const { place, line } = draft.line(sheet, id);
    const old = line.runs[run];
    if (!old) throw new ChangeError(`line ${id} has no run ${run}`);
    if (!before.every((n, i) => isSame(old.nodes[at + i], n)))
      throw new ChangeError(`the nodes of line ${id} are not as they were`);
    const list = old.nodes.toSpliced(at, before.length, ...(after as readonly Node[]));
    if (list.length === 0) throw new ChangeError(`line ${id} would be left without nodes`);
    draft.replace(place, { ...line, runs: line.runs.with(run, { ...old, nodes: list }) });
  },
  inverse: turnedAbout,
  touches: ({ id }) => [id],
});
