import type { Page } from '@playwright/test';
import { expect, test } from './world.ts';
import { ask, ledger, line, notice, signIn, slip } from './person.ts';

test.beforeEach(async ({ page }) => signIn(page));

const places = (page: Page) => page.getByRole('complementary', { name: 'Places' });
const collection = (page: Page, name: string) => places(page).getByRole('group', { name, exact: true }).first();
async function deed(page: Page, name: string, what: string | RegExp): Promise<void> {
  await collection(page, name).hover();
  await page
    .getByRole('button', { name: `What to do with ${name}`, exact: true })
    .first()
    .click();
  await page.getByRole('menuitem', { name: what }).click();
}
async function made(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: 'New collection' }).click();
  await page.getByRole('textbox', { name: 'Name of the new collection' }).fill(name);
  await page.keyboard.press('Enter');
  await expect(collection(page, name)).toBeVisible();
}

test('a collection says what it is for and until when, and a rule fills it with what is asked now', async ({
  page,
}) => {
  await made(page, 'Ferries');
  await ask(page, 'kind:map');
  await deed(page, 'Ferries', /Describe/);
  const sheet = page.getByRole('dialog', { name: 'Ferries' });
  await sheet.getByRole('textbox', { name: 'What it is for' }).fill('Where one could cross');
  await sheet.getByLabel('Needed until').fill('2027-05-01');
  await sheet.getByRole('button', { name: 'Use the current question' }).click();
  await expect(sheet.getByRole('textbox', { name: 'Rule' })).toHaveValue('kind:map');
  await sheet.getByRole('button', { name: 'Save' }).click();
  await expect(notice(page, 'Gave Ferries a rule')).toBeVisible();
  await expect(collection(page, 'Ferries')).toContainText('1 May 2027');
  await collection(page, 'Ferries').getByRole('button', { name: 'Ferries' }).first().click();
  await expect(line(page, 'Plan of the proposed gate')).toBeVisible();
});

test('collections are put in another order by keys, and one is placed under another', async ({ page }) => {
  await made(page, 'Aa first');
  await made(page, 'Ab second');
  const names = () => places(page).getByRole('list', { name: 'Collections' }).getByRole('group').evaluateAll((all) => all.map((el) => el.getAttribute('aria-label')!).filter((n) => /^A[ab] /.test(n))); // prettier-ignore
  expect(await names()).toEqual(['Aa first', 'Ab second']);
  await collection(page, 'Ab second').getByRole('button', { name: 'Ab second' }).first().focus();
  await page.keyboard.press('Alt+ArrowUp');
  await expect(notice(page, 'Put Ab second in another place at the top')).toBeVisible();
  await expect.poll(names).toEqual(['Ab second', 'Aa first']);
  await deed(page, 'Aa first', /^Move…/);
  await page.getByRole('combobox', { name: 'Name of a collection' }).fill('ab sec');
  await page.keyboard.press('Enter');
  await expect(notice(page, 'Moved Aa first under Ab second')).toBeVisible();
});

test('a source is filed in two collections at once by keys, and taken out of one again', async ({ page }) => {
  await made(page, 'Bearings');
  await made(page, 'Soundings');
  await ask(page, 'title:"Plan of the proposed gate"');
  await ledger(page).focus();
  await page.keyboard.press('f');
  const box = page.getByRole('combobox', { name: 'Name of a collection' });
  await box.fill('bear');
  await page.keyboard.press('Shift+Enter');
  await box.fill('sound');
  await expect(page.getByRole('option', { name: 'Soundings' })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(notice(page, 'Filed 1 source in Bearings, Soundings')).toBeVisible();
  await page.keyboard.press('F');
  await box.fill('bear');
  await page.keyboard.press('Enter');
  await expect(notice(page, /^Removed 1 source from Bearings; still in/)).toBeVisible();
});

test('two collections are compared, and what both have leads to its sources', async ({ page }) => {
  await deed(page, 'Operators', 'Compare with…');
  await page.getByRole('combobox', { name: 'Name of a collection' }).fill('chapter 1');
  await page.keyboard.press('Enter');
  const both = page.getByRole('table').getByRole('row', { name: /^In all: / });
  const count = (await both.getByRole('link').textContent())!;
  await both.getByRole('link').click();
  await expect(page.getByText(count, { exact: true }).first()).toBeVisible();
});

test('a field of several is altered after a look at what would change', async ({ page }) => {
  await ask(page, 'kind:map');
  await expect(line(page, 'Plan of the proposed gate')).toBeVisible();
  await ledger(page).focus();
  await page.keyboard.press('Control+a');
  await page.getByRole('button', { name: 'Fields…' }).click();
  const box = page.getByRole('dialog');
  await box.getByRole('combobox', { name: 'Field' }).selectOption({ label: 'Location in archive' });
  await box.getByRole('combobox', { name: 'What is done' }).selectOption({ label: 'Find and replace' });
  await box.getByRole('checkbox', { name: 'A regular expression' }).check();
  await box.getByRole('textbox', { name: 'Regular expression' }).fill('^(\\w+)');
  await box.getByRole('textbox', { name: 'Put in its place' }).fill('The $1');
  await expect(box.getByText(/source[s]? would change/)).toBeVisible();
  await box.getByRole('button', { name: 'Change them' }).click();
  await expect(notice(page, /^Changed location in archive in/)).toBeVisible();
});

test('a source has a page of its own, on which one says how it stands to another, and adds a link', async ({
  page,
}) => {
  await ask(page, 'title:"Plan of the proposed gate"');
  await line(page, 'Plan of the proposed gate').click();
  await slip(page).getByRole('link', { name: 'Whole page' }).click();
  await expect(page.getByRole('heading', { name: 'Plan of the proposed gate' })).toBeVisible();
  await page.getByRole('button', { name: '+ relation to another source' }).click();
  await page.getByRole('combobox', { name: 'This source' }).selectOption({ label: 'Supplement to' });
  await page.getByRole('combobox', { name: 'The other source' }).fill('former gatekeeper');
  await page.getByRole('option', { name: /Interview with a former gatekeeper/ }).click();
  await page.getByRole('textbox', { name: 'Page' }).fill('3');
  await page.getByRole('button', { name: 'Say so' }).click();
  const relations = page.getByRole('region', { name: 'Relations' });
  await expect(relations.getByRole('listitem')).toContainText(['Supplement to']);
  await expect(relations.getByRole('listitem')).toContainText(['at 3']);
  await page.getByRole('button', { name: '+ link' }).click();
  await page.getByRole('textbox', { name: 'Address' }).fill('https://archive.example/plan');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('link', { name: 'archive.example/plan' })).toBeVisible();
});

test('all values of a facet stand in a sheet, with and without', async ({ page }) => {
  const narrow = page.getByRole('complementary', { name: 'Narrow' });
  await narrow.getByRole('button', { name: 'all of them…' }).first().click();
  const sheet = page.getByRole('dialog');
  await sheet.getByRole('textbox', { name: /^Find in/ }).fill('report');
  await sheet
    .getByRole('button', { name: /^Without Report/ })
    .first()
    .click();
  await page.keyboard.press('Escape');
  await expect(page.getByText(/^not .*report/).first()).toBeVisible();
});

test('the bin tells how each came there, and is emptied after a second word', async ({ page }) => {
  await ask(page, 'title:"Plan of the proposed gate"');
  await line(page, 'Plan of the proposed gate').click();
  await page.keyboard.press('Delete');
  await places(page).getByRole('button', { name: /1 source, kept 30 days/ }).click(); // prettier-ignore
  await expect(page.getByText(/^Removed .* by Marit Okonjo, .*goes for good/)).toBeVisible();
  await page.getByRole('button', { name: 'Empty the bin' }).click();
  await expect(page.getByText(/1 source goes for good.*cannot be undone/)).toBeVisible();
  await page.getByRole('button', { name: 'Empty it' }).click();
  await expect(notice(page, 'Emptied the bin: 1 source went for good')).toBeVisible();
});

test('a source is to be checked again for a reason, is asked for by it, and has been', async ({ page }) => {
  await ask(page, 'title:"Interview with a former gatekeeper"');
  await line(page, 'Interview with a former gatekeeper').click();
  await slip(page).getByRole('button', { name: '+ check again' }).click();
  await page.getByRole('textbox', { name: 'What is to be checked' }).fill('the sheet number');
  await page.getByRole('button', { name: 'Check again', exact: true }).last().click();
  await ask(page, 'is:again');
  await expect(line(page, 'Interview with a former gatekeeper')).toBeVisible();
  await expect(slip(page).getByText('Check again: the sheet number')).toBeVisible();
  await slip(page).getByRole('button', { name: 'Checked' }).click();
  await expect(page.getByText('No source matches')).toBeVisible();
});
