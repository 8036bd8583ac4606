import { expect, test, type Page } from './world.ts';
import { ask, ledger, line, signIn, slip } from './person.ts';

const stage = (page: Page, name: string) => page.getByRole('link', { name: new RegExp(`^${name}`) });
async function openFromDemo(page: Page, question: string, title: RegExp): Promise<void> {
  await stage(page, 'Sources').click();
  await ask(page, question);
  await line(page, title).click();
  await ledger(page).focus();
  await page.keyboard.press('Enter');
}

test.beforeEach(({ page }) => signIn(page));

const LETTERS = /Letters to the Harbour Commission, January/;

test('one goes through a folder page by page with keys alone, and what was said of pages is seen on the contact sheet', async ({
  page,
}) => {
  await openFromDemo(page, 'title:"Letters to the Harbour Commission"', LETTERS);
  await page.getByRole('button', { name: 'More about the document' }).click();
  await page.getByRole('menuitem', { name: 'Contact sheet' }).click();
  const sheet = page.getByRole('listbox', { name: 'Pages' });
  await expect(sheet.getByRole('option', { name: 'Page 5, used, promise of 1872' })).toBeVisible();
  await sheet.getByRole('option', { name: 'Page 12', exact: true }).click();
  await page.getByRole('button', { name: 'Page by page' }).click();
  const status = page.getByRole('region', { name: 'Page by page' }).getByRole('status');
  await expect(status).toHaveText(/12 of 40 · 36 left/);
  await page.keyboard.press('ArrowRight');
  await expect(status).toHaveText(/13 of 40 · 35 left/);
  await page.keyboard.press('u');
  await page.keyboard.press('4');
  await expect(page.getByRole('button', { name: 'u used' })).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('button', { name: 'Letters for tags' }).click();
  await page.getByLabel('Letter', { exact: true }).fill('m');
  await page.getByLabel('Tag', { exact: true }).fill('meadow');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await page.getByRole('img', { name: 'Page 13' }).click();
  await page.keyboard.press('m');
  await expect(page.getByRole('button', { name: 'm meadow' })).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('Escape');
  await expect(sheet.getByRole('option', { name: 'Page 13, used, Doubt, meadow' })).toBeVisible();
  await page.getByLabel('Which pages').selectOption('Used');
  await expect(sheet.getByRole('option')).toHaveCount(3);
});

test('two documents stand side by side, each with its own page and keys; where one was is kept', async ({ page }) => {
  await openFromDemo(page, 'title:"Letters to the Harbour Commission"', LETTERS);
  await page.getByRole('button', { name: 'Show another beside' }).click();
  await page.getByRole('menuitem', { name: 'This document a second time' }).click();
  const [left, right] = ['Left document', 'Right document'].map((name) => page.getByRole('group', { name }));
  await left!.getByLabel('Go to page').click();
  await page.keyboard.type('1');
  await page.keyboard.press('Enter');
  await right!.getByLabel('Go to page').click();
  await page.keyboard.type('9');
  await page.keyboard.press('Enter');
  await expect(right!.getByRole('slider', { name: 'Page' })).toHaveAttribute('aria-valuenow', '9');
  await expect(left!.getByRole('slider', { name: 'Page' })).toHaveAttribute('aria-valuenow', '1');
  await left!.getByRole('document', { name: 'Document' }).click();
  await page.keyboard.press('j');
  await expect(left!.getByRole('slider', { name: 'Page' })).toHaveAttribute('aria-valuenow', '2');
  await expect(right!.getByRole('slider', { name: 'Page' })).toHaveAttribute('aria-valuenow', '9');
  const kept = page.waitForResponse((r) => r.url().endsWith('/open-documents') && r.request().method() === 'PUT');
  await page.getByRole('button', { name: 'Close the right one' }).click();
  await page.keyboard.press('j');
  await kept;
  await page.reload();
  await expect(page.getByRole('slider', { name: 'Page' })).toHaveAttribute('aria-valuenow', /[23]/);
});

const TEXT = 'The keeper shut the lower gate at dusk.\n\nNobody said who must open it again.\n';

test('a plain text is read and marked like a document; the marks are filtered', async ({ page }) => {
  await ask(page, 'title:"Letters to the Harbour Commission"');
  await line(page, LETTERS).click();
  await expect(slip(page).getByText('Box 9, folder 3', { exact: true })).toBeVisible();
  const file = { name: 'brief.txt', mimeType: 'text/plain', buffer: Buffer.from(TEXT) };
  await slip(page).getByLabel('A file for this source').setInputFiles(file);
  await slip(page).getByRole('button', { name: 'brief (for reading).html', exact: true }).click();
  const text = page.getByRole('document', { name: 'brief (for reading).html' });
  await text.getByText('Nobody said who must open it again.').selectText();
  await page.keyboard.press('4');
  const mark = page.getByRole('button', { name: /^4 Doubt: Nobody said/ });
  await expect(mark).toBeVisible();
  await page.reload();
  await expect(mark).toBeVisible();
  await page.getByRole('button', { name: 'Filter the marks' }).click();
  await page.getByLabel('Words in the mark or its gloss').fill('keeper');
  await expect(mark).toHaveCount(0);
  await page.getByRole('button', { name: 'Show all marks' }).click();
  await expect(mark).toBeVisible();
});
