import { expect, test, type Page } from './world.ts';
import { ask, dropDocument, ledger, line, makePdf, notice, signIn } from './person.ts';

/** Brings in a document of its own and opens it, so that no test stands in another's marks. */
async function openDocument(page: Page, title: string): Promise<void> {
  await signIn(page);
  const pdf = await makePdf([
    [title, 'The keeper shut the gate at dusk.', 'No boat passed before the morning tide.'],
    ['Second leaf', 'At dusk the gate was shut again.', 'The ferry waited below.'],
  ]);
  await dropDocument(page, `${title}.pdf`, pdf);
  await page.getByRole('link', { name: /^Sources/ }).click();
  await ask(page, `title:"${title}"`);
  await line(page, title).click();
  await ledger(page).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'Page 1' }).getByText('The keeper shut')).toBeVisible();
}

test('by the keyboard alone: words are chosen, marked, glossed, and all of it undone', async ({ page }) => {
  await openDocument(page, 'Log of the lower gate');
  await page.getByRole('document', { name: 'Document' }).focus();
  const chosen = page.getByRole('status').filter({ hasText: /^Chosen:/ });
  await page.keyboard.press('ArrowRight');
  await expect(chosen).toHaveText('Chosen: Log');
  await page.keyboard.press('ArrowDown');
  await expect(chosen).toHaveText('Chosen: The');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  await expect(chosen).toHaveText('Chosen: keeper shut the');
  await page.keyboard.press('Shift+ArrowLeft');
  await expect(chosen).toHaveText('Chosen: keeper shut');
  await page.keyboard.press('Shift+ArrowLeft');
  await page.keyboard.press('Shift+ArrowLeft');
  await expect(chosen).toHaveText('Chosen: The keeper');
  await page.keyboard.press('2');
  const gloss = page.getByRole('textbox', { name: 'Gloss on “The keeper”' });
  await gloss.fill('Which keeper?');
  await page.keyboard.press('Control+Enter');
  await expect(notice(page, 'Changed a gloss')).toBeVisible();
  await expect(page.getByText('1 mark', { exact: true })).toBeVisible();
  await page.getByRole('document', { name: 'Document' }).focus();
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(page.getByText('0 marks', { exact: true })).toBeVisible();
});

test('search within goes from hit to hit across pages and tells how many', async ({ page }) => {
  await openDocument(page, 'Log of the upper gate');
  const place = page.getByText(/^\d of 2$/);
  await page.keyboard.press('/');
  await page.getByRole('textbox', { name: 'Search in the document' }).fill('dusk');
  await expect(page.getByRole('button', { name: /^p\. \d .*dusk/ })).toHaveCount(2);
  await expect(place).toHaveText('1 of 2');
  await page.keyboard.press('Enter');
  await expect(place).toHaveText('2 of 2');
  await expect(page.getByText('Page 2 of 2')).toBeVisible();
  await page.keyboard.press('Shift+Enter');
  await expect(place).toHaveText('1 of 2');
  await page.keyboard.press('Escape');
  await expect(place).toBeHidden();
});

test('zoom keeps the page, and open documents stay in their tabs over a reload', async ({ page }) => {
  await openDocument(page, 'Log of the middle gate');
  const leaf = page.getByRole('region', { name: 'Page 1' });
  const before = (await leaf.boundingBox())!.width;
  await page.getByRole('button', { name: 'Larger' }).click();
  await expect.poll(async () => (await leaf.boundingBox())!.width).toBeGreaterThan(before);
  await page.getByRole('button', { name: /fit to the width/ }).click();
  await expect.poll(async () => (await leaf.boundingBox())!.width).toBe(before);
  await page.reload();
  // What is open is the member's, and may be open for them elsewhere too.
  const tab = page
    .getByRole('navigation', { name: 'Open documents' })
    .getByRole('link', { name: 'Log of the middle gate' });
  await expect(tab).toHaveCount(1);
  await page.getByRole('button', { name: 'Close Log of the middle gate' }).click();
  await expect(tab).toHaveCount(0);
});

test('a reader sees marks and glosses, and marks for themselves alone', async ({ page }) => {
  await signIn(page, 'tobias');
  await ask(page, 'file:text');
  await ledger(page).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'Page 1' })).toBeVisible();
  await expect(page.getByLabel('For yourself alone')).toBeChecked();
  await expect(page.getByLabel('For yourself alone')).toBeDisabled();
});
