/**
 * A process that keeps changes until it is killed. It opens the drawing, says what it found, then makes changes, small ones
 * and large, and says of each when it was acknowledged. Snapshots are taken at once.
 */
const later = globalThis.setTimeout;
globalThis.setTimeout = ((run: () => void, ms = 0) => later(run, Math.min(ms, 3))) as typeof globalThis.setTimeout;

const LARGE_LINES = 400;

async function main(): Promise<void> {
  const { createDrawing, listDrawings } = await import('../drawings');
  const { appendChanges } = await import('../append');
  const { readableState } = await import('../journal');
  const { wanderingDrawing, testPage } = await import('@/core/test/drawings');
  const { changeOf } = await import('@/core/change/changeOf');
  const { moveLines, removeLines } = await import('@/core/edits/lines');
  const { allLines } = await import('@/core/drawing/items');
  const say = (text: string): void => void process.stdout.write(`${text}\n`);

  const id = listDrawings()[0]?.id ?? createDrawing('Killed', testPage).id;
  const opened = readableState(id);
  say(`opened ${opened.revision} ${opened.damaged ? opened.damaged.why : 'whole'}`);
  const pool = allLines(wanderingDrawing(LARGE_LINES, 20, 1));
  let { revision, drawing } = opened;
  for (;;) {
    const sheet = drawing.sheets[0];
    const name = `${process.pid}-${revision}`;
    const isLarge = revision % 20 === 5;
    const steps = (isLarge ? pool : pool.slice(0, 1)).map((line, i) => ({
      step: 'insertItem' as const,
      at: { sheet: sheet.id, index: sheet.items.length + i },
      item: { ...line, id: `${name}-${i}` },
    }));
    const edit =
      revision % 20 === 10
        ? removeLines(
            drawing,
            allLines(drawing)
              .slice(-LARGE_LINES)
              .map((l) => l.id),
          )
        : revision % 3 === 1 && sheet.items.length > 0
          ? moveLines(
              drawing,
              allLines(drawing).map((l) => l.id),
              { x: 1, y: -1 },
            )
          : { label: isLarge ? 'Paste' : 'Draw', steps };
    ({ revision } = appendChanges(id, revision, [changeOf(edit, name)]));
    say(`kept ${revision}`);
    ({ drawing } = readableState(id));
    // Snapshots are packed meanwhile.
    await new Promise((done) => setImmediate(done));
  }
}

void main();
