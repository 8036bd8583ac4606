/** Looking at an answer, keeping what one looks for, and what is one's own. */
import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import { expect, test } from './world.ts';
import { ask, ledger, line, notice, signIn, slip } from './person.ts';

test.beforeEach(async ({ page }) => signIn(page));

async function choose(page: Page, menu: string, entry: string | RegExp): Promise<void> {
  await page.getByRole('button', { name: menu, exact: true }).click();
  await page.getByRole('menuitem', { name: entry }).click();
}
const places = (page: Page) => page.getByRole('complementary', { name: 'Places' });
async function deedOf(page: Page, what: string, deed: string | RegExp): Promise<void> {
  const menu = page.getByRole('button', { name: `What to do with ${what}`, exact: true }).first();
  await menu.scrollIntoViewIfNeeded();
  await menu.click();
  await page.getByRole('menuitem', { name: deed }).click();
}

test('lines are grouped by kind, shown with their abstracts, and saved as the table they are shown as', async ({
  page,
}) => {
  await ask(page, 'barrier kind:case or barrier kind:book');
  await choose(page, 'Groups', 'Kind');
  await expect(ledger(page).locator('b', { hasText: 'Legal case' })).toBeVisible();
  await choose(page, 'Two lines', 'One line');
  await choose(page, 'Columns', /^Places/);
  await page.keyboard.press('Escape');
  const author = page.getByRole('group', { name: 'Columns' }).getByRole('button', { name: /^Author/ });
  await author.press('Alt+ArrowRight');
  await expect(page.getByText('Author is column 2 of 5')).toBeAttached();
  await page.getByRole('link', { name: 'Print or save' }).click();
  await expect(page.getByRole('heading', { name: /^Legal case/ })).toBeVisible();
  const [download] = await Promise.all([page.waitForEvent('download'), choose(page, 'Save as', /as shown/)]);
  const text = await readFile((await download.path())!, 'utf8');
  expect(text.split('\r\n')[0]).toBe('Kind,Title,Published in,Author,Year,Tags,Places');
  expect(text).toContain('Legal case,Harbour Commissioners v Penhallow Dredging Ltd');
  await page.getByRole('link', { name: 'Back to the sources' }).click();
  await choose(page, 'One line', 'With abstract');
  await expect(ledger(page).getByRole('option').first()).toBeVisible();
  await page.reload();
  // The look is kept, and the groups stand in the address.
  await expect(page.getByRole('button', { name: 'With abstract' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'By kind' })).toBeVisible();
});

test('the ribbon is walked with the keys, and what has no date is asked for by a press', async ({ page }) => {
  const ribbon = page.getByRole('group', { name: /^Sources by year/ });
  await ribbon.focus();
  await page.keyboard.press('Home');
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/from=\d+&to=\d+/);
  await expect(page.getByText(/^6 sources|^\d+ sources/).first()).toBeVisible();
  // Escape lets go of the stretch one was walking; what is asked is taken away in the ask line.
  await page.keyboard.press('Escape');
  await expect(page).toHaveURL(/from=/);
  await page.getByRole('button', { name: /^Take away years/ }).click();
  await expect(page).not.toHaveURL(/from=/);
  await page.getByRole('button', { name: /undated$/ }).click();
  await expect(page.getByRole('combobox', { name: 'Ask' })).toHaveValue(/-has:date/);
});

test('a search that is watched says what came since, shows it, and counts it as seen', async ({ page }) => {
  await ask(page, 'tag:watched');
  await page.getByRole('button', { name: 'Keep this search' }).click();
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('On watch');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(places(page).getByRole('button', { name: 'On watch', exact: true })).toBeVisible();
  await deedOf(page, 'the saved search On watch', /^Watch it/);
  await expect(page.getByText('Nothing new in “On watch”')).toBeVisible();
  await ask(page, 'title:"Marsh as plaintiff"');
  await expect(slip(page)).toContainText(/Marsh as plaintiff/i);
  await page.keyboard.press('Escape');
  await ledger(page).focus();
  await page.keyboard.press('t');
  await page.keyboard.type('watched');
  await page.keyboard.press('Enter');
  await expect(notice(page, 'Added the tag “watched” to 1 source')).toBeVisible();
  await places(page).getByRole('button', { name: 'On watch', exact: true }).click();
  await expect(page.getByText('1 new in “On watch”')).toBeVisible();
  await page.getByRole('button', { name: 'Show the new ones' }).click();
  await expect(line(page, 'Marsh as plaintiff')).toBeVisible();
  await page.getByRole('button', { name: 'I have seen them' }).click();
  await expect(page.getByText('Nothing new in “On watch”')).toBeVisible();
});

test('saved searches are found by what they ask, and several are moved into a folder at once', async ({ page }) => {
  await places(page).getByRole('link', { name: 'All saved searches' }).click();
  const table = page.getByRole('table', { name: 'Saved searches' });
  await page.getByLabel('Words of its name, purpose or question').fill('has:');
  await expect(table.getByRole('row')).toHaveCount(3);
  await page.getByRole('checkbox', { name: 'Select all that are listed' }).click();
  await page.getByLabel('Folder to move or copy them to').selectOption({ label: 'Before filing the brief' });
  await page.getByRole('button', { name: 'Move there' }).click();
  await expect(notice(page, 'Moved 2 saved searches')).toBeVisible();
  await expect(table.getByRole('row', { name: /Without a file/ })).toContainText('Before filing the brief');
});

test('a collection that is one’s own is in no place of another’s, until it is shown to all', async ({
  page,
  browser,
}) => {
  await page.getByRole('button', { name: 'New collection' }).click();
  await page.getByRole('textbox', { name: 'Name of the new collection' }).fill('My doubts');
  await page.keyboard.press('Enter');
  const mine = places(page).getByRole('group', { name: 'My doubts' });
  await expect(mine).toBeVisible();
  await deedOf(page, 'My doubts', 'Keep for yourself alone');
  await expect(mine.getByLabel('yours alone')).toBeVisible();
  const elsewhere = await browser.newContext({ baseURL: new URL(page.url()).origin });
  const theirs = await elsewhere.newPage();
  await signIn(theirs, 'ines');
  await expect(places(theirs).getByRole('group', { name: 'Licensing' })).toBeVisible();
  await expect(places(theirs).getByRole('group', { name: 'My doubts' })).toHaveCount(0);
  await deedOf(page, 'My doubts', 'Show to all members');
  await expect(places(theirs).getByRole('group', { name: 'My doubts' })).toBeVisible();
  await elsewhere.close();
});

test('on the page of an article what is like it is told with why, and its own list is said to be cited', async ({
  page,
}) => {
  await ask(page, 'title:"Who closes the gate"');
  await slip(page).getByRole('link', { name: 'Whole page' }).click();
  const like = page.getByRole('region', { name: 'More like this' });
  await expect(like.getByRole('listitem').first()).toContainText('shares');
  await page.getByRole('button', { name: 'Read its own list of references' }).click();
  await expect(page.getByText(/references in okonjo-2014\.pdf/)).toBeVisible();
  await page.getByRole('button', { name: /^Say it cites/ }).click();
  await expect(notice(page, /^It cites \d sources/)).toBeVisible();
  await expect(page.getByText('said already').first()).toBeVisible();
});

test('a vocabulary comes in as a table, one stands under another, and goes out as SKOS', async ({ page }) => {
  await page.goto('/sources/tags');
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    page.getByRole('button', { name: 'Bring a vocabulary in' }).click(),
  ]);
  await chooser.setFiles({
    name: 'tags.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('name,meaning,broader\nAaa water,What is wet,\nAab tide,,aaa water\n,lost,\n'),
  });
  await expect(notice(page, /Brought in a vocabulary: 2 new tags/)).toBeVisible();
  await expect(page.getByText('Line 4 has no name and was left out')).toBeVisible();
  const [download] = await Promise.all([page.waitForEvent('download'), choose(page, 'Save as', /SKOS/)]);
  expect(await readFile((await download.path())!, 'utf8')).toContain('skos:prefLabel "Aab tide"@en');
});

test('what one asks is logged once one wants it, and stands in the log of searches', async ({ page }) => {
  await page.goto('/gather/log');
  await page.getByRole('checkbox', { name: 'Log what I ask in Sources' }).click();
  await expect(page.getByRole('checkbox', { name: 'Log what I ask in Sources' })).toBeChecked();
  const noted = page.waitForResponse((r) => r.url().includes('/asked') && r.request().method() === 'POST');
  await page.goto('/sources');
  await ask(page, 'kind:map');
  await noted;
  await page.goto('/gather/log');
  await expect(page.getByRole('table', { name: 'Asked here, Today' })).toContainText('kind:map');
});

test('the history says beforehand why a change cannot be undone', async ({ page }) => {
  await ask(page, 'title:"Marsh as plaintiff"');
  await page.keyboard.press('Escape');
  await ledger(page).focus();
  await page.keyboard.press('e');
  const edit = async (field: string, value: string): Promise<void> => {
    const saved = page.waitForResponse((r) => r.request().method() === 'PATCH');
    await page.getByLabel(field, { exact: true }).fill(value);
    await page.keyboard.press('Tab');
    await saved;
  };
  // Two edits of one field in a row are one entry of the history: one of another field lies between them.
  await edit('Title', 'Marsh as plaintiff, once');
  await edit('Volume', '12');
  await edit('Title', 'Marsh as plaintiff, twice');
  await page.goto('/sources/history');
  const second = page.getByRole('listitem').filter({ hasText: 'title' }).nth(1);
  await second.getByRole('button', { name: 'What it touched' }).click();
  await expect(second).toContainText('cannot be undone any more');
  await expect(second.getByRole('button', { name: 'Undo' })).toHaveCount(0);
});
