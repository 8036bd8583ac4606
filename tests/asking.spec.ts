/** Asking exactly, looking at the overview, keeping what is asked. */
import { expect, test, type Page } from './world.ts';
import { ask, ledger, line, notice, signIn, slip } from './person.ts';

test.beforeEach(async ({ page }) => signIn(page));

const askLine = (page: Page) => page.getByRole('combobox', { name: 'Ask' });
const total = (page: Page) => page.getByText(/^\d+ sources?$/).first();
const places = (page: Page) => page.getByRole('complementary', { name: 'Places' });

test('fields and values are offered as one types, and a mistake is pointed at where it stands', async ({ page }) => {
  await askLine(page).click();
  await page.keyboard.type('kind:case lab');
  await expect(page.getByRole('option', { name: /^label:/ })).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await page.keyboard.type('key');
  const offered = page.getByRole('listbox', { name: 'Suggestions' }).getByRole('option');
  await expect(offered).toHaveText([/Key authority/]);
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Tab');
  await expect(askLine(page)).toHaveValue('kind:case label:"Key authority" ');
  await expect(total(page)).toHaveText(/^[1-9]/);
  await expect(ledger(page).getByRole('option').first()).toContainText('Key authority');
  await page.keyboard.type('yaer:1980');
  await expect(page.getByText('“yaer” is not a field; it was searched as a word. Did you mean “year:”?')).toBeVisible();
});

test('a sentence half remembered is found by what stands near what, and opens at its page', async ({ page }) => {
  await ask(page, 'operater~ near/6 dutty~');
  const first = ledger(page).getByRole('option').first();
  await expect(first).toBeVisible();
  await ask(page, 'page:"tidal barrier"');
  const found = ledger(page)
    .getByRole('option')
    .filter({ hasText: /\d+ more/ })
    .first();
  await expect(found).toBeVisible();
  await found
    .getByText(/^p\. \d+$/)
    .nth(1)
    .click();
  await expect(page).toHaveURL(/\/read\/.*page=\d+/);
});

test('a question is built of rows, alters the answer at once, and stands as words', async ({ page }) => {
  await page
    .getByRole('complementary', { name: 'Narrow' })
    .getByRole('button', { name: /^used \d/ })
    .click();
  await page.getByRole('button', { name: 'Build…' }).click();
  const builder = page.getByRole('region', { name: 'Build a question' });
  await expect(builder.getByRole('combobox', { name: 'Field' })).toHaveValue('tag');
  await builder.getByRole('button', { name: '+ Group' }).click();
  const group = builder.getByRole('group', { name: 'Any of these' });
  await group.getByRole('combobox', { name: 'Field' }).selectOption({ label: 'Kind' });
  await group.getByRole('combobox', { name: 'Value' }).fill('Book');
  await group.getByRole('button', { name: '+ Condition' }).click();
  await group.getByRole('combobox', { name: 'Field' }).last().selectOption({ label: 'Year' });
  await group.getByRole('combobox', { name: 'Value' }).last().fill('1990-');
  await expect(askLine(page)).toHaveValue('tag:"used" (kind:"Book" or year:1990-)');
  const some = (await builder.getByText(/^\d+ sources?$/).textContent())!;
  await builder
    .getByRole('combobox', { name: 'How these are combined' })
    .last()
    .selectOption({ label: 'None of these' });
  await expect(builder.getByText(/^\d+ sources?$/)).not.toHaveText(some);
  await expect(askLine(page)).toHaveValue('tag:"used" -(kind:"Book" or year:1990-)');
  await builder.getByRole('button', { name: 'Done' }).click();
  await expect(builder).toBeHidden();
});

test('a search is kept in a folder, its count follows what changes, and another is asked with it', async ({ page }) => {
  await ask(page, 'kind:map');
  await page.getByRole('button', { name: 'Keep this search' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('Maps of the estuary');
  await page.getByRole('combobox', { name: 'Folder' }).selectOption({ label: 'Before filing the brief' });
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(notice(page, 'Made the saved search “Maps of the estuary”')).toBeVisible();
  const entry = places(page)
    .getByRole('listitem')
    .filter({ hasText: /^Maps of the estuary/ });
  const count = async (): Promise<number> => Number(/\d+$/.exec((await entry.textContent())!.trim())?.[0] ?? 'NaN');
  await expect.poll(count).toBeGreaterThan(0);
  const before = await count();
  await ledger(page).focus();
  await page.keyboard.press('Delete');
  await expect.poll(count).toBe(before - 1);
  await page.keyboard.press('Control+z');
  await expect.poll(count).toBe(before);
  await ask(page, 'saved:"Maps of the estuary" kind:map');
  await expect(total(page)).toHaveText(new RegExp(`^${before} sources?$`));
  await entry.hover();
  await entry.getByRole('button', { name: /What to do with the saved search/ }).click();
  await page.getByRole('menuitem', { name: /Remove the search/ }).click();
  await expect(entry).toBeHidden();
});

test('the overview is seen as a picture, gone through by keys, and a part of it leads to its sources', async ({
  page,
}) => {
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  const picture = page.getByRole('group', { name: 'What goes together' });
  const dot = picture.getByRole('button', { name: /^operator duty, Licensing: \d+ sources/ });
  const said = Number(/(\d+) sources/.exec((await dot.getAttribute('aria-label'))!)![1]);
  await dot.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText(`operator duty, with Licensing: ${said} sources`)).toBeVisible();
  await page.keyboard.press('ArrowRight');
  await expect(dot).not.toBeFocused();
  await page.getByRole('button', { name: `Show these ${said}` }).click();
  await expect(total(page)).toHaveText(`${said} sources`);
  await expect(page.getByText('tag: operator duty')).toBeVisible();
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByRole('button', { name: 'Kinds by year' }).click();
  await expect(page.getByRole('group', { name: 'Kinds by year' }).getByRole('button').first()).toBeVisible();
  await page.getByRole('button', { name: 'As a table' }).click();
  await expect(page.getByRole('table', { name: 'Kinds by year' })).toBeVisible();
});

test('a label is made with what it means, put on a source, and asked for', async ({ page }) => {
  await ask(page, 'title:"Marsh as plaintiff"');
  await line(page, 'Marsh as plaintiff').click();
  await slip(page).getByRole('button', { name: 'Add or remove a label' }).click();
  await page.getByRole('menuitem', { name: 'Labels of the workspace…' }).click();
  const sheet = page.getByRole('dialog', { name: 'Labels of the workspace' });
  await sheet.getByRole('textbox', { name: 'Name' }).fill('Withdrawn');
  await sheet.getByRole('textbox', { name: 'What it means' }).fill('The authors took it back');
  await sheet.getByRole('button', { name: 'Make it' }).click();
  await expect(sheet.getByText('The authors took it back')).toBeVisible();
  await sheet.getByRole('button', { name: 'Close' }).click();
  await slip(page).getByRole('button', { name: 'Add or remove a label' }).click();
  await page.getByRole('menuitem', { name: /^Withdrawn/ }).click();
  await expect(notice(page, 'Labelled 1 source “Withdrawn”')).toBeVisible();
  await expect(slip(page).getByTitle('Withdrawn: The authors took it back')).toBeVisible();
  await ask(page, 'label:withdrawn');
  await expect(total(page)).toHaveText('1 source');
});

test('a tag is renamed and merged on the page of the vocabulary', async ({ page }) => {
  await ask(page, 'kind:thesis');
  await ledger(page).focus();
  await page.keyboard.press('Control+a');
  await page.keyboard.press('t');
  await page.getByRole('combobox', { name: 'Add a tag' }).fill('navigation-rights');
  await page.keyboard.press('Enter');
  await expect(notice(page, /Added the tag “navigation-rights”/)).toBeVisible();
  await page.goto('/sources/tags');
  const alike = page.getByRole('region', { name: 'Near-identical' });
  await expect(alike).toContainText('navigation-rights');
  await alike.getByRole('button', { name: 'Merge into “navigation-rights”' }).click();
  await expect(notice(page, /Merged another tag into “navigation-rights”/)).toBeVisible();
  await expect(alike).toBeHidden();
  await page.keyboard.press('Control+z');
  await expect(alike.getByText('navigation rights', { exact: true })).toBeVisible();
});

test('the history of the workspace tells who did what, what it touched, and takes it back', async ({ page }) => {
  await ask(page, 'title:"Closing early or closing well"');
  await ledger(page).focus();
  await page.keyboard.press('s');
  await expect(notice(page, /Starred 1 source|Took the star from 1 source/)).toBeVisible();
  await page.goto('/sources/history');
  await page.getByRole('textbox', { name: 'Words in what was done' }).fill('star');
  const entry = page
    .getByRole('listitem')
    .filter({ hasText: /Starred 1 source|Took the star/ })
    .first();
  await entry.getByRole('button', { name: 'What it touched' }).click();
  await expect(entry.getByRole('link', { name: 'Closing early or closing well' })).toBeVisible();
  await entry.getByRole('button', { name: 'Undo' }).click();
  await expect(notice(page, /Undone: /)).toBeVisible();
  await expect(entry).toContainText('Undone');
});
