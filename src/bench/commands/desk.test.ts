import { removeReference, placedReference, placeReference, setReference } from '@/core/edits/references';
import { setSheet } from '@/core/edits/sheets';
import { wanderingDrawing } from '@/core/test/drawings';
import { bringIn, goToStage, showPage, takeTool } from './desk';
import { runCommand } from './run';
import { chooseAll } from './lines';
import { loadSession, storeSession } from '../state/session';
import { benchWith, Hand } from '../test/hand';
import { PlaceTool } from '../tools/placeTool';

const drawing = wanderingDrawing(8, 3, 2);
const reference = placedReference(drawing.page, {
  id: 'r',
  name: 'scan.png',
  picture: 'a'.repeat(64),
  pixelWidth: 400,
  dpi: null,
  pixelHeight: 280,
});

describe('stages and tools', () => {
  test('a stage keeps the tool in hand when it has it, else hands over its first', () => {
    const bench = benchWith(drawing);
    bench.setState({ stage: 'trace', tool: 'nodes' });
    goToStage(bench, 'refine');
    expect(bench.getState().tool).toBe('nodes');
    goToStage(bench, 'prepare');
    expect(bench.getState().tool).toBe('place');
  });
  test('a tool of another stage brings that stage along', () => {
    const bench = benchWith(drawing);
    goToStage(bench, 'ink');
    takeTool(bench, 'pen');
    expect([bench.getState().stage, bench.getState().tool]).toEqual(['trace', 'pen']);
    takeTool(bench, 'place');
    expect(bench.getState().stage).toBe('prepare');
  });
  test('all lines that can be touched are chosen, with a tool that can use them', () => {
    const bench = benchWith(drawing);
    bench.commit(setSheet(bench.getState().drawing, 's1', { locked: true }, 'Lock'));
    bench.setState({ stage: 'trace', tool: 'pen' });
    chooseAll(bench);
    expect([bench.getState().lines.size, bench.getState().tool]).toEqual([6, 'select']);
  });
  test('commands do what their keys say', () => {
    const bench = benchWith(drawing);
    bench.setState({ window: { width: 800, height: 600 } });
    let keys = 0;
    const run = (command: Parameters<typeof runCommand>[1]) => runCommand(bench, command, null, () => keys++);
    run({ do: 'keys' });
    run({ do: 'fit' });
    expect(keys).toBe(1);
    const { view } = bench.getState();
    expect(view.x + (drawing.page.width / 2) * view.scale).toBeCloseTo(400, 9);
    run({ do: 'actualSize' });
    expect(bench.getState().view.scale).toBe(1);
    showPage(bench);
    expect(bench.getState().view).toEqual(view);
  });
});

describe('place', () => {
  const withReference = () => {
    const bench = benchWith(drawing);
    bench.commit(placeReference(bench.getState().drawing, reference));
    return new Hand(bench, (r) => new PlaceTool(r));
  };
  const middle = { x: drawing.page.width / 2, y: drawing.page.height / 2 };

  test('a locked reference is not taken hold of: the way out is offered, and taken', () => {
    const hand = withReference();
    hand.click(middle);
    const { message } = hand.bench.getState();
    expect([hand.bench.getState().reference, message?.action?.label]).toEqual([null, 'Unlock it']);
    message!.action!.run();
    expect([hand.bench.getState().reference, hand.bench.getState().drawing.references[0].locked]).toEqual(['r', false]);
    hand.key('Escape');
    expect(hand.bench.getState().reference).toBeNull();
    hand.click(middle);
    expect(hand.bench.getState().reference).toBe('r');
  });
  test('locked, it cannot be taken hold of; it is let go when removed, or clicked beside', () => {
    const hand = withReference();
    const { bench } = hand;
    bench.commit(setReference(bench.getState().drawing, 'r', { locked: false }, 'Unlock'));
    hand.click(middle);
    bench.commit(setReference(bench.getState().drawing, 'r', { locked: true }, 'Lock'));
    expect(hand.tool.hints()[0].keys).toContain('unlock');
    bench.undo();
    hand.click(middle);
    hand.click({ x: -50, y: -50 });
    expect(bench.getState().reference).toBeNull();
    hand.click(middle);
    bench.commit(removeReference(bench.getState().drawing, 'r'));
    expect(bench.getState().reference).toBeNull();
    expect(hand.tool.hints()[0].keys).toContain('drop or paste');
  });
});

test('pictures that cannot be taken are told by name, and the others still come', async () => {
  const bench = benchWith(drawing);
  globalThis.fetch = (async (url: string) =>
    url.includes('bad')
      ? Response.json({ error: { code: 'broken', message: 'The picture is damaged.' } }, { status: 400 })
      : Response.json({ reference }, { status: 201 })) as typeof fetch;
  await bringIn(bench, [new File(['x'], 'bad.png'), new File(['y'], 'good.png')]);
  expect(bench.getState().message?.text).toBe('“bad.png”: The picture is damaged.');
  expect(bench.getState().drawing.references).toEqual([reference]);
  expect(bench.getState().undoable).toHaveLength(1);
});

test('where a person was is kept, and nonsense in the store does no harm', () => {
  const store = new Map<string, string>();
  globalThis.localStorage = {
    getItem: (k: string) => store.get(k) ?? null,
    setItem: (k: string, v: string) => void store.set(k, v),
  } as Storage;
  const session = {
    view: { scale: 2, x: 1, y: -1 },
    stage: 'trace',
    tool: 'pen',
    sheet: 's1',
    rulers: true,
    mirror: null,
    window: { width: 900, height: 700 },
  } as const;
  storeSession('d', session);
  expect(loadSession('d')).toEqual(session);
  for (const nonsense of ['{', '{"view":{"scale":-1,"x":0,"y":0}}', '{"view":{"scale":1,"x":null,"y":0}}', '3']) {
    store.set('yellow-quill:session:d', nonsense);
    expect(loadSession('d').view).toBeUndefined();
  }
});
