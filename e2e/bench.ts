import { allLines } from '../src/core/drawing/items';
import { expect, type APIRequestContext, type Page, type Locator } from '@playwright/test';
import { applyChange, firstStyle, type Drawing, type Line, type Node, type Point } from '../src/core';
import { addLine } from '../src/core/edits/lines';
import { changeOf } from '../src/core/change/changeOf';
import { drawingOnGrid } from '../src/core/change/onGrid';
import { diff } from '../src/core/edits/diff';

/** The bench as a hand meets it: page units turned into places on the screen, and the drawing as the server has it. */
export class BenchHand {
  private constructor(
    readonly page: Page,
    readonly id: string,
    private origin: Point,
    public view: { scale: number; x: number; y: number },
  ) {}

  /** Opens a drawing at a known view. */
  static async open(
    page: Page,
    id: string,
    options: { view?: BenchHand['view']; stage?: string; tool?: string } = {},
  ): Promise<BenchHand> {
    const view = options.view ?? { scale: 0.8, x: 120, y: 20 };
    // Once only: a reload is to find what the page itself kept.
    await page.addInitScript(
      ([key, session]) => {
        if (sessionStorage.getItem(key)) return;
        sessionStorage.setItem(key, 'begun');
        localStorage.setItem(key, session);
      },
      [
        `yellow-quill:session:${id}`,
        JSON.stringify({ view, stage: options.stage ?? 'trace', tool: options.tool ?? 'pen' }),
      ] as const,
    );
    await page.goto(`/drawing/${id}`);
    const hand = new BenchHand(page, id, { x: 0, y: 0 }, view);
    await hand.ready();
    return hand;
  }

  async ready(): Promise<void> {
    const canvas = this.page.getByTestId('page');
    await expect(canvas).toHaveAttribute('data-sharp', 'true', { timeout: 30_000 });
    // What stands around the page comes after it.
    await this.page.locator('.top-actions').waitFor({ state: 'attached' });
    const box = (await canvas.boundingBox())!;
    this.origin = { x: box.x, y: box.y };
  }

  /** The view as it is kept for the next visit. */
  keptView(): Promise<BenchHand['view']> {
    return this.page.evaluate(
      (key) => (JSON.parse(localStorage.getItem(key)!) as { view: BenchHand['view'] }).view,
      `yellow-quill:session:${this.id}`,
    );
  }

  /** Follows the view once it is another than it was, and at rest. */
  async followView(): Promise<void> {
    let last = this.view;
    await expect
      .poll(
        async () => {
          const [was, now] = [last, await this.keptView()];
          last = now;
          return now.x !== this.view.x && JSON.stringify(now) === JSON.stringify(was);
        },
        { intervals: [300] },
      )
      .toBe(true);
    this.view = last;
  }

  at(p: Point): Point {
    return {
      x: this.origin.x + p.x * this.view.scale + this.view.x,
      y: this.origin.y + p.y * this.view.scale + this.view.y,
    };
  }

  async move(p: Point, steps = 3): Promise<void> {
    const s = this.at(p);
    await this.page.mouse.move(s.x, s.y, { steps });
  }

  async click(p: Point): Promise<void> {
    await this.move(p);
    await this.page.mouse.down();
    await this.page.mouse.up();
  }

  async drag(from: Point, to: Point): Promise<void> {
    await this.move(from);
    await this.page.mouse.down();
    await this.move(to, 6);
    await this.page.mouse.up();
  }

  /** Pastes a text, as the system would. */
  async paste(text: string): Promise<void> {
    await this.page.evaluate((t) => {
      const data = new DataTransfer();
      data.setData('text/plain', t);
      document.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true }));
    }, text);
  }

  /** Waits until all is saved, and gives the drawing from the server. */
  async saved(): Promise<Drawing> {
    await expect(this.page.locator('.save')).toHaveAttribute('data-save', 'saved');
    const { drawing } = (await (await this.page.request.get(`/api/drawings/${this.id}`)).json()) as {
      drawing: Drawing;
    };
    return drawing;
  }

  async lines(): Promise<Line[]> {
    return allLines(await this.saved());
  }

  /** The nodes of the only line. */
  async nodes(): Promise<readonly Node[]> {
    const lines = await this.lines();
    expect(lines).toHaveLength(1);
    return lines[0].runs[0].nodes;
  }

  /** The colour of the composed page at a place, 0…255 each. */
  async colourAt(p: Point): Promise<number[]> {
    const { x, y } = this.at(p);
    const shot = await this.page.screenshot({ clip: { x: Math.round(x), y: Math.round(y), width: 1, height: 1 } });
    const { default: sharp } = await import('sharp');
    return [...(await sharp(shot).removeAlpha().raw().toBuffer())];
  }
}

export const near = (a: Point | null | undefined, b: Point, within = 1): void => {
  expect(a).toBeTruthy();
  expect(Math.hypot(a!.x - b.x, a!.y - b.y)).toBeLessThan(within);
};

export async function makeDrawing(
  request: APIRequestContext,
  title = 'Test',
  page = { width: 800, height: 600, unit: 'px', dpi: 96 },
): Promise<string> {
  const answer = await request.post('/api/drawings', { data: { title, page } });
  return ((await answer.json()) as { id: string }).id;
}

export async function demoDrawing(request: APIRequestContext, start: string): Promise<string> {
  const { drawings } = (await (await request.get('/api/drawings')).json()) as {
    drawings: { id: string; title: string }[];
  };
  // Not a copy that another test has made.
  return drawings.find((d) => d.title.startsWith(start) && !d.title.endsWith('(copy)'))!.id;
}

export const cornerNode = (x: number, y: number) => ({ point: { x, y }, in: null, out: null, kind: 'corner' as const });

/** A level line of 500 px and 4 px wide. */
export const levelLine = (id: string, y: number): Line => ({
  id,
  style: { ...firstStyle, width: 4 },
  runs: [{ closed: false, nodes: [cornerNode(100, y), cornerNode(600, y)] }],
});

/** A drawing with these lines on its sheet, each laid by a change of its own. */
export async function drawingWith(request: APIRequestContext, lines: readonly Line[]): Promise<string> {
  const id = await makeDrawing(request);
  let { drawing } = (await (await request.get(`/api/drawings/${id}`)).json()) as { drawing: Drawing };
  const changes = lines.map((line) => {
    const change = { id: `lay-${line.id}`, ...addLine(drawing, drawing.sheets[0].id, line) };
    drawing = applyChange(drawing, change);
    return change;
  });
  const answer = await request.post(`/api/drawings/${id}/changes`, { data: { base: 0, changes } });
  expect(answer.status()).toBe(200);
  return id;
}

/** A drawing that a fresh one is made into. */
export async function drawingOf(request: APIRequestContext, make: (d: Drawing) => Drawing): Promise<string> {
  const id = await makeDrawing(request);
  const { drawing } = (await (await request.get(`/api/drawings/${id}`)).json()) as { drawing: Drawing };
  const change = changeOf(diff(drawing, drawingOnGrid(make(drawing)), 'Make'), `make-${id}`);
  const answer = await request.post(`/api/drawings/${id}/changes`, { data: { base: 0, changes: [change] } });
  expect(answer.status()).toBe(200);
  return id;
}

/** A copy of a demo drawing, for a test of its own. */
export async function demoCopy(request: APIRequestContext, start: string): Promise<string> {
  const id = await demoDrawing(request, start);
  return ((await (await request.post(`/api/drawings/${id}/duplicate`)).json()) as { id: string }).id;
}

/** A copy of the pear in Refine, when its lines are measured; with the card of their distances. */
export async function measuredPear(page: Page): Promise<{ hand: BenchHand; card: Locator }> {
  const hand = await BenchHand.open(page, await demoCopy(page.request, 'Pear'), {
    stage: 'refine',
    tool: 'nodes',
    view: { scale: 0.7, x: 190, y: 10 },
  });
  const card = page.getByRole('group', { name: 'Distance from the ink' });
  await expect(card).toHaveAttribute('data-state', 'ready', { timeout: 30_000 });
  return { hand, card };
}

/** Hands a file to the chooser that a button opens. */
export async function chooseFile(
  page: Page,
  button: string,
  name: string,
  mimeType: string,
  buffer: Buffer,
): Promise<void> {
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    page.getByRole('button', { name: button }).click(),
  ]);
  await chooser.setFiles({ name, mimeType, buffer });
}
