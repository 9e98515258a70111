import { expect, test, type Page } from '@playwright/test';
import { BenchHand, drawingWith, levelLine } from './bench';

const open = async (page: Page) => {
  await page.addInitScript(() => {
    if (localStorage.getItem('yellow-quill-preferences')) return;
    localStorage.setItem(
      'yellow-quill-preferences',
      JSON.stringify({ state: { deliverCards: 'hand in' }, version: 1 }),
    );
  });
  const id = await drawingWith(page.request, [levelLine('a', 150)]);
  await BenchHand.open(page, id, { stage: 'deliver', tool: 'select' });
  return id;
};
const choose = async (page: Page, label: string, option: string): Promise<void> => {
  await page.getByRole('combobox', { name: label }).click();
  await page.locator('.ant-select-item-option', { hasText: option }).click();
};

test('handed in, refused with the reason, handed in again and received; sent again when the line broke', async ({
  page,
}) => {
  test.setTimeout(120_000);
  const id = await open(page);
  const card = page.getByRole('group', { name: 'Hand in' });
  await choose(page, 'Where to', 'Seed catalogue');
  await expect(card).toContainText('It would be refused here.');
  await card.getByRole('button', { name: 'Hand in the SVG' }).click();
  const handed = card.getByRole('list', { name: 'Handed in' }).locator('li');
  await expect(handed.first()).toContainText('is not taken here', { timeout: 20_000 });

  await page.getByText('File', { exact: true }).first().click();
  await choose(page, 'Kind of file', 'PDF');
  await page.getByText('Hand in', { exact: true }).first().click();
  await choose(page, 'Where to', 'Seed catalogue');
  await card.getByRole('button', { name: 'Hand in the PDF' }).click();
  await expect(handed.first()).toContainText(/received, CA-\d{4}-\d{4}/, { timeout: 20_000 });

  await choose(page, 'Where to', 'Mill press');
  await card.getByRole('button', { name: 'Hand in the PDF' }).click();
  await expect(handed.first()).toContainText('The line broke half way', { timeout: 20_000 });
  await handed
    .first()
    .getByRole('button', { name: /Send again/ })
    .click();
  await expect(handed.first()).toContainText(/received, MI-/, { timeout: 20_000 });

  // It is listed for whoever comes later, and had back byte for byte.
  await page.reload();
  await expect(handed).toHaveCount(3, { timeout: 20_000 });
  const { handIns } = await (await page.request.get(`/api/drawings/${id}/hand-ins`)).json();
  expect(handIns.map((h: { state: string }) => h.state)).toEqual(['received', 'received', 'refused']);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    handed
      .first()
      .getByRole('link', { name: /as it was handed in/ })
      .click(),
  ]);
  expect(download.suggestedFilename()).toMatch(/\.pdf$/);
});
