import { expect, test, type Page } from './world.ts';
import { ask, dropDocument, ledger, line, makePdf, more, notice, signIn } from './person.ts';

/** Brings in a document of its own and opens it. */
async function openDocument(page: Page, title: string): Promise<void> {
  const pdf = await makePdf([
    [title, 'Sir, the boatmen of Ferrovv Point beg leave', 'to remind the Commission of the gate.'],
    ['Second leaf', 'At dusk the gate was shut again.'],
    ['Third leaf', 'Yours, Penhallow.'],
  ]);
  await dropDocument(page, `${title}.pdf`, pdf);
  await stage(page, 'Sources').click();
  await ask(page, `title:"${title}"`);
  await line(page, title).click();
  await ledger(page).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'Page 1' }).getByText('Sir, the boatmen')).toBeVisible();
}
const stage = (page: Page, name: string) => page.getByRole('link', { name: new RegExp(`^${name}`) });
const leaf = (page: Page, name = 'Page 1') => page.getByRole('region', { name });

test.beforeEach(({ page }) => signIn(page));

test('words are underlined for oneself alone, shown to all, and listed across sources with their page', async ({
  page,
}) => {
  await openDocument(page, 'Petition of the boatmen');
  await page.getByLabel('Shape of marks').selectOption('Underline');
  await page.getByLabel('For yourself alone').check();
  await leaf(page).getByText('Sir, the boatmen').selectText();
  await page.keyboard.press('2');
  const gloss = page.getByRole('textbox', { name: /^Gloss on “Sir, the boatmen/ });
  await gloss.fill('Which boatmen?');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('Yours alone')).toBeVisible();
  await page.getByRole('button', { name: /^2 Evidence: Sir/ }).click();
  await page.getByRole('button', { name: 'Show to all' }).click();
  await expect(notice(page, 'Showed a mark to all members')).toBeVisible();
  await page.getByLabel('For yourself alone').uncheck();
  await page.getByLabel('Shape of marks').selectOption('Highlight');
  await page.getByRole('link', { name: 'All marks across sources' }).click();
  await page.getByLabel('Words in the mark or its gloss').fill('which boatmen');
  const listed = page.getByRole('list', { name: 'Marks' }).getByRole('listitem');
  await expect(listed).toHaveCount(1);
  await expect(listed).toContainText('p. 1');
  await page.getByLabel('Sense: Evidence').check();
  await expect(page.getByRole('heading', { name: '1 mark across sources' })).toBeVisible();
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as…' }).click();
  await page.getByRole('menuitem', { name: 'Markdown' }).click();
  expect((await saved).suggestedFilename()).toBe('marks.md');
  await listed.getByRole('link').first().click();
  await expect(page.getByRole('textbox', { name: /^Gloss on “Sir, the boatmen/ })).toHaveValue('Which boatmen?');
});

test('a region is drawn on the page, stays on its place when the page is turned, and is undone', async ({ page }) => {
  await openDocument(page, 'Chart of the ferry');
  await page.getByLabel('Shape of marks').selectOption('Region');
  const box = (await leaf(page).boundingBox())!;
  await page.mouse.move(box.x + 60, box.y + 150);
  await page.mouse.down();
  await page.mouse.move(box.x + 260, box.y + 250, { steps: 5 });
  await page.mouse.up();
  await expect(page.getByText('1 mark', { exact: true })).toBeVisible();
  await page.getByLabel('Shape of marks').selectOption('Highlight');
  const drawn = page.locator('[data-shape=region]');
  const upright = (await drawn.boundingBox())!;
  expect(Math.round(upright.width)).toBeCloseTo(200, -1);
  await more(page, 'Turn right');
  await expect.poll(async () => Math.round((await drawn.boundingBox())!.height)).toBeCloseTo(200, -1);
  await more(page, 'Turn left');
  await page.getByRole('document', { name: 'Document' }).focus();
  await page.keyboard.press('Control+z');
  await expect(drawn).toHaveCount(0);
});

test('the number of a page is set by hand, and is the one that marks and hits are cited by', async ({ page }) => {
  await openDocument(page, 'Ledger of the weir');
  await page.getByRole('button', { name: /page numbers/ }).click();
  await page.getByLabel('Number of this page in print').fill('201');
  await page.getByRole('button', { name: 'Set', exact: true }).click();
  await expect(leaf(page, 'Page 201')).toBeVisible();
  await page.getByRole('textbox', { name: 'Go to page' }).fill('203');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Page 203 (3 of 3)')).toBeVisible();
  await page.getByRole('textbox', { name: 'Go to page' }).fill('cover');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('status').filter({ hasText: 'There is no page “cover”' })).toHaveCount(1);
  await page.keyboard.press('Escape');
  await page.getByRole('textbox', { name: 'Search in the document' }).fill('dusk');
  await expect(page.getByRole('button', { name: /^p\. 202 .*dusk/ })).toBeVisible();
});

test('a line is corrected beside its picture; its words are found by search at once, and it is put back', async ({
  page,
}) => {
  await openDocument(page, 'Letter from the point');
  await more(page, 'Correct the text');
  const field = page.getByRole('textbox', { name: /^Line 2: Sir, the boatmen of Ferrovv/ });
  await field.fill('Sir, the boatmen of Farrowmere Point beg leave');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Recognised as “Sir, the boatmen of Ferrovv Point beg leave”')).toBeVisible();
  await stage(page, 'Sources').click();
  await ask(page, 'farrowmere');
  await expect(line(page, 'Letter from the point')).toBeVisible();
  await ledger(page).focus();
  await page.keyboard.press('Enter');
  await more(page, 'Correct the text');
  await page.getByRole('button', { name: 'Put back' }).click();
  await expect(field).toHaveValue('Sir, the boatmen of Ferrovv Point beg leave');
});

test('the text is read plainly, marked there, and the mark stands on its page', async ({ page }) => {
  await openDocument(page, 'Memorial of the keeper');
  await more(page, 'Plain reading');
  const text = page.getByRole('document', { name: 'Text of the document' });
  await expect(text.getByText('At dusk the gate was shut again.')).toBeVisible();
  await page.getByLabel('Size').selectOption('28 px');
  await text.getByText('At dusk the gate was shut again.').selectText();
  await expect(page.getByRole('toolbar', { name: 'Mark the selection' })).toBeVisible();
  await page.keyboard.press('1');
  await expect(text.locator('mark')).toHaveText('At dusk the gate was shut again.');
  await more(page, 'Plain reading');
  await expect(leaf(page, 'Page 2').getByText('At dusk')).toBeVisible();
  await expect(page.getByRole('button', { name: /^1 Claim: At dusk/ })).toBeVisible();
});

test('pages are taken as a source of their own by keys, and the contact sheet shows them', async ({ page }) => {
  await openDocument(page, 'Folder of the gate');
  await more(page, 'Contact sheet');
  await page.getByRole('listbox', { name: 'Pages' }).focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press(' ');
  await page.keyboard.press('Shift+ArrowRight');
  await page.getByLabel('Title').fill('Penhallow to the Commission');
  await page.getByLabel('Date').fill('18 Feb 1872');
  await page.getByRole('button', { name: 'Take pages 2–3 as a source' }).click();
  await expect(page.getByRole('option', { name: /Page 3, taken as Penhallow to the Commission/ })).toBeVisible();
  await expect(page.getByText('1 not taken yet')).toBeVisible();
  await stage(page, 'Sources').click();
  await ask(page, 'title:"Penhallow to the Commission"');
  await expect(line(page, 'Penhallow to the Commission')).toBeVisible();
});

test('a sense is added with its sentence, chosen by its key, and merged into another', async ({ page }) => {
  await openDocument(page, 'Glossary of the estuary');
  await more(page, 'Senses of marks…');
  const dialog = page.getByRole('dialog', { name: 'Senses of marks' });
  await page.getByLabel('Name', { exact: true }).fill('Definition');
  await page.getByLabel('What it is for, in a sentence').fill('A term as the author defines it.');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(dialog.getByText('A term as the author defines it.')).toBeVisible();
  await page.keyboard.press('Escape');
  await leaf(page).getByText('to remind').selectText();
  await page.keyboard.press('5');
  await expect(page.getByText('Definition 1')).toBeVisible();
  await page.keyboard.press('Escape');
  await more(page, 'Senses of marks…');
  await page.getByRole('button', { name: 'Change or move Definition' }).click();
  await page.getByRole('menuitem', { name: 'Merge into Claim' }).click();
  await expect(page.getByRole('button', { name: 'Change or move Definition' })).toBeHidden();
  await page.keyboard.press('Escape');
  await expect(page.getByText('Claim 1')).toBeVisible();
});
