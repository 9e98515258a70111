import { expect, test, type Page } from '@playwright/test';
import { flatsIn, heldGroups, linesIn } from '../src/core/drawing/items';
import type { Drawing, Flat, Point } from '../src/core';
import { flatAt } from '../src/core/edits/flats';
import { groupInside } from '../src/core/edits/keepInside';
import { isSwatch } from '../src/core/drawing/paint';
import { toneOf } from '../src/core/colour/tone';
import { rgbColour } from '../src/core/colour/colour';
import { BenchHand, demoCopy } from './bench';

const VIEW = { scale: 1, x: 60, y: 60 };
/** Places of the can's picture on the page. */
const K = ((160 / 25.4) * 96) / 1600;
const at = (x: number, y: number): Point => ({ x: x * K, y: y * K });
const [BODY, SPOUT, GARDEN, SILL] = [at(720, 700), at(1100, 760), at(200, 300), at(1300, 1000)];

const flats = (d: Drawing): Flat[] => d.sheets.flatMap((s) => flatsIn(s.items));
const open = async (page: Page): Promise<BenchHand> => {
  const hand = await BenchHand.open(page, await demoCopy(page.request, 'Seed packet'), {
    view: VIEW,
    stage: 'colour',
    tool: 'pour',
  });
  await page.waitForTimeout(300);
  return hand;
};
const flatHolding = (d: Drawing, p: Point): string | undefined => flatAt(d, p)?.id;
const show = (page: Page, what: 'Flats' | 'Palette' | 'Tones'): Promise<void> =>
  page.getByRole('radiogroup', { name: 'What the cards show' }).getByText(what).click();
const hexAt = async (hand: BenchHand, p: Point): Promise<string> => {
  const [r, g, b] = await hand.colourAt(p);
  return rgbColour(r, g, b);
};
/** Takes the mixer of a field, and sets a colour by its hex figure. */
async function mix(page: Page, label: string | RegExp, colour: string): Promise<void> {
  await page.getByRole('button', { name: label }).first().click();
  const field = page.locator('.ant-color-picker-hex-input:visible input');
  await field.fill(colour.slice(1));
  await field.press('Enter');
  await page.keyboard.press('Escape');
  await page.mouse.move(640, 30);
}

test('colours are taken from the picture, shown first; a swatch changes wherever it is used; all of it is taken back', async ({
  page,
}) => {
  const hand = await open(page);
  const start = await hand.saved();
  await show(page, 'Flats');
  const card = page.getByRole('group', { name: 'Take colours' });
  await card.getByRole('button', { name: 'each its own' }).click();
  await card.getByRole('button', { name: 'Show what they take' }).click();
  await expect(card.getByRole('list', { name: 'Before and after' })).toContainText('flat');
  // It is only shown.
  expect((await hand.saved()).sheets).toEqual(start.sheets);
  await card.getByRole('button', { name: 'Take them' }).click();
  await expect.poll(async () => flats(await hand.saved()).every((f) => typeof f.fill === 'string')).toBe(true);
  const own = flats(await hand.saved());
  expect(new Set(own.map((f) => f.fill)).size).toBeGreaterThan(8);

  await card.getByRole('button', { name: 'the palette' }).click();
  await card.getByRole('button', { name: 'Show what they take' }).click();
  await card.getByRole('button', { name: 'Take them' }).click();
  await expect.poll(async () => flats(await hand.saved()).every((f) => isSwatch(f.fill))).toBe(true);

  // One swatch changed: what is painted with it is seen in the new colour, and stays linked.
  await show(page, 'Palette');
  const linked = await hand.saved();
  const spout = flats(linked).find((f) => isSwatch(f.fill) && f.id === flatHolding(linked, SPOUT))!;
  const swatch = linked.palette!.find((s) => isSwatch(spout.fill) && s.id === spout.fill.swatch)!;
  await page.getByRole('button', { name: new RegExp(`^${swatch.name}, ${swatch.colour}`) }).click();
  await mix(page, /^Colour of the swatch/, '#aa3311');
  await expect.poll(() => hexAt(hand, SPOUT)).toBe('#aa3311');
  expect(flats(await hand.saved()).find((f) => f.id === spout.id)!.fill).toEqual(spout.fill);

  // And a colour is swapped, of strokes and fills alike.
  const swap = page.getByRole('group', { name: 'Swap colours' });
  await mix(page, /^Instead of #aa3311/, '#224488');
  await swap.getByRole('button', { name: 'Swap', exact: true }).click();
  await expect.poll(() => hexAt(hand, SPOUT)).toBe('#224488');

  for (let i = 0; i < 4; i++) await page.keyboard.press('Control+z');
  await expect.poll(async () => JSON.stringify(await hand.saved()) === JSON.stringify(start)).toBe(true);
});

test('squinting shows few greys; tone distances lead to their flats; neighbours too near are named', async ({
  page,
}) => {
  const hand = await open(page);
  await show(page, 'Tones');
  const list = page.getByRole('list', { name: 'The worst first' });
  await expect(list.getByRole('button').first()).toBeVisible({ timeout: 20_000 });
  const figures = (await list.getByRole('button').locator('b').allTextContents()).map((t) =>
    Math.abs(Number(t.replace('−', '-'))),
  );
  expect(figures).toEqual([...figures].sort((a, b) => b - a));
  await list.getByRole('button').first().click();
  await expect(page.getByRole('group', { name: 'Tone distance' })).toBeVisible();

  const greys = async (): Promise<Set<number> | null> => {
    const seen = new Set<number>();
    for (const p of [BODY, SPOUT, GARDEN, SILL, at(700, 450), at(560, 650), at(880, 700)]) {
      const [r, g, b] = await hand.colourAt(p);
      if (Math.max(r, g, b) - Math.min(r, g, b) > 1) return null;
      seen.add(r);
    }
    return seen;
  };
  await page.reload();
  await hand.ready();
  expect(await greys()).toBeNull();
  await page.keyboard.down('y');
  await expect.poll(async () => (await greys())?.size ?? 99).toBeLessThanOrEqual(4);
  await page.keyboard.up('y');
  await expect.poll(greys).toBeNull();
});

test('shade is drawn into a flat and kept inside; the picture is cut out, in two colours, and let go', async ({
  page,
}) => {
  const hand = await open(page);
  const start = await hand.saved();
  const [before, beside] = [await hexAt(hand, SPOUT), await hexAt(hand, at(1240, 700))];
  // A loop over the spout and far beyond it.
  await page.keyboard.press('j');
  await hand.move(SPOUT);
  await page.mouse.down();
  for (const [x, y] of [
    [1020, 700],
    [1060, 600],
    [1270, 600],
    [1290, 800],
    [1100, 860],
  ])
    await hand.move(at(x, y), 8);
  await page.mouse.up();
  const held = async (): Promise<number> => (await hand.saved()).sheets.flatMap((s) => heldGroups(s.items)).length;
  await expect.poll(held).toBe(3);
  const shaded = await hand.saved();
  const group = groupInside(shaded, flatHolding(shaded, SPOUT)!)!.item;
  expect('items' in group && linesIn(group.items)).toHaveLength(1);
  await page.mouse.move(640, 30);
  await expect.poll(async () => toneOf(await hexAt(hand, at(1090, 750)))).toBeLessThan(toneOf(before) - 0.1);
  // What is beyond the flat is as it was.
  expect(await hexAt(hand, at(1240, 700))).toBe(beside);

  await page.keyboard.press('Control+z');
  await expect.poll(held).toBe(2);

  // The picture cut out by the spout.
  await page.keyboard.press('h');
  await show(page, 'Flats');
  await hand.click(SPOUT);
  const inside = page.getByRole('group', { name: 'Keep inside' });
  await inside.getByRole('button', { name: 'Cut the picture out' }).click();
  await expect.poll(held).toBe(3);
  await inside.getByRole('button', { name: 'two', exact: true }).click();
  await page.mouse.move(640, 30);
  await expect
    .poll(async () => ['#20304f', '#f2e6d0'].includes(await hexAt(hand, at(1080, 770))), { timeout: 20_000 })
    .toBe(true);
  await inside.getByRole('button', { name: 'Release' }).click();
  await expect.poll(held).toBe(2);
  for (let i = 0; i < 4; i++) await page.keyboard.press('Control+z');
  await expect.poll(async () => JSON.stringify(await hand.saved()) === JSON.stringify(start)).toBe(true);
});

test('tones are pulled from the picture into a flat, shown first; a gradient is pulled across one and changed', async ({
  page,
}) => {
  const hand = await open(page);
  const start = await hand.saved();
  await show(page, 'Flats');
  await page.keyboard.press('j');
  await hand.click(SILL);
  const tones = page.getByRole('group', { name: 'Pull tones' });
  await tones.getByRole('button', { name: 'Show the tones' }).click();
  await expect(tones).toContainText('kept inside of the flat', { timeout: 20_000 });
  expect((await hand.saved()).sheets).toEqual(start.sheets);
  await tones.getByRole('button', { name: 'Lay them' }).click();
  const inSill = async (): Promise<number> => {
    const d = await hand.saved();
    const group = groupInside(d, flatHolding(d, SILL)!)?.item;
    return group && 'items' in group ? linesIn(group.items).length : 0;
  };
  await expect.poll(inSill).toBeGreaterThan(0);
  await page.keyboard.press('Control+z');
  await expect.poll(inSill).toBe(0);

  await page.keyboard.press('u');
  await hand.drag(at(1000, 850), at(1200, 600));
  const gradient = async () => {
    const d = await hand.saved();
    const fill = flats(d).find((f) => f.id === flatHolding(d, SPOUT))?.fill;
    return typeof fill === 'object' && 'gradient' in fill
      ? d.gradients!.find((g) => g.id === fill.gradient)
      : undefined;
  };
  await expect.poll(async () => (await gradient())?.stops.length).toBe(2);
  // A press on its way puts a stop there; that is dragged, coloured, and taken away.
  await hand.click(at(1100, 725));
  await expect.poll(async () => (await gradient())?.stops.length).toBe(3);
  await hand.drag(at(1100, 725), at(1150, 662.5));
  await expect.poll(async () => (await gradient())?.stops[1].at).toBeCloseTo(0.75, 1);
  await mix(page, /^Colour of the stop/, '#ffffff');
  await expect.poll(async () => (await gradient())?.stops[1].colour).toBe('#ffffff');
  for (let i = 0; i < 4; i++) await page.keyboard.press('Control+z');
  await expect.poll(async () => JSON.stringify(await hand.saved()) === JSON.stringify(start)).toBe(true);
});
