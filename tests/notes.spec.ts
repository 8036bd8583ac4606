import { expect, test, type Page } from './world.ts';
import { ask, dropDocument, ledger, line, makePdf, notice, signIn } from './person.ts';

const stage = (page: Page, name: string) => page.getByRole('link', { name: new RegExp(`^${name}`) });
const editor = (page: Page) => page.getByRole('textbox', { name: 'Text of the note' });
const title = (page: Page) => page.getByRole('textbox', { name: 'Title of the note' });
const sheet = (page: Page) => page.getByRole('complementary', { name: 'Note' });
const saved = (page: Page) => page.getByRole('status').filter({ hasText: /^Saved$/ });
const list = (page: Page) => page.getByRole('list', { name: 'Notes' });

test.beforeEach(({ page }) => signIn(page));

test('from a document: its marks become a note beside it, the quotations are checked, and one that is altered is mended', async ({
  page,
}) => {
  const name = 'Ferrow letter of the pilots';
  const words = 'Sir, the pilots of Ferrow beg leave to remind you of the buoy';
  await dropDocument(
    page,
    `${name}.pdf`,
    await makePdf([
      [name, words],
      ['Second leaf', 'At dusk the lamp was lit.'],
    ]),
  );
  await stage(page, 'Sources').click();
  await ask(page, `title:"${name}"`);
  await line(page, name).click();
  await ledger(page).focus();
  await page.keyboard.press('Enter');
  const leaf = page.getByRole('region', { name: 'Page 1' });
  await leaf.getByText('Sir, the pilots').selectText();
  await page.keyboard.press('2');
  await page.getByRole('textbox', { name: /^Gloss on/ }).fill('Which pilots?');
  await page.keyboard.press('Control+Enter');
  await expect(notice(page, 'Changed a gloss')).toBeVisible();
  await page.getByRole('button', { name: 'All of them into a note' }).click();
  await expect(editor(page)).toContainText('Sir, the pilots of Ferrow');
  await expect(editor(page)).toContainText('Which pilots?');
  await expect(editor(page)).toContainText('stands there word for word');
  // The document stays in view.
  await expect(leaf).toBeVisible();

  await editor(page).getByText('Sir, the pilots').click();
  await page.keyboard.press('End');
  await page.keyboard.type(' xylem ');
  await expect(page.getByRole('region', { name: 'Quotations to look at' })).toContainText('not on the page: xylem');
  await page.getByRole('button', { name: 'Quote it as it stands there' }).click();
  await expect(editor(page)).toContainText('stands there word for word');
  await expect(editor(page)).not.toContainText('xylem');
});

test('n on a source begins a note that is kept as one writes, asked for, dated, put under a heading, and undone', async ({
  page,
}) => {
  await ask(page, 'title:"The Right of Navigation and the Closed Gate"');
  await line(page, 'The Right of Navigation').first().click();
  await ledger(page).focus();
  await page.keyboard.press('n');
  await title(page).fill('Quillback thoughts on the gate');
  await page.keyboard.press('Enter');
  // Without waiting: no key is lost to the title.
  await page.keyboard.type('## What it leaves open');
  await page.keyboard.press('Enter');
  await page.keyboard.type('- **Who** turns the wheel');
  await expect(saved(page)).toBeVisible();
  await expect(editor(page).getByRole('heading', { name: 'What it leaves open' })).toBeVisible();
  await expect(editor(page).getByRole('listitem')).toHaveText('Who turns the wheel');
  await sheet(page).getByRole('textbox', { name: 'When it happened' }).fill('autumn 1869');
  await page.keyboard.press('Enter');
  await expect(notice(page, 'Dated the note “Quillback thoughts on the gate” autumn 1869')).toBeVisible();
  await sheet(page).getByRole('button', { name: '+ heading' }).click();
  await page.getByRole('combobox', { name: 'What the note is about' }).fill('E. Okonjo');
  await page.getByRole('option', { name: /^Okonjo, Elias/ }).click();
  await expect(sheet(page).getByRole('button', { name: 'Okonjo, Elias', exact: true })).toBeVisible();
  await sheet(page).getByRole('button', { name: 'Close' }).click();

  await stage(page, 'Notes').click();
  await page.getByRole('textbox', { name: 'Ask for notes' }).fill('quillback wheel about:Okonjo');
  await expect(list(page).getByRole('listitem')).toHaveCount(1);
  await expect(list(page).getByRole('listitem')).toContainText('autumn 1869');
  await list(page).getByRole('button', { name: 'Quillback thoughts' }).click();
  await page.getByRole('article').getByRole('button', { name: 'Okonjo, Elias', exact: true }).click();
  await expect(page.getByRole('article', { name: 'Okonjo, Elias' })).toContainText('Quillback thoughts on the gate');
  await page.getByRole('article').getByRole('button', { name: 'Close' }).click();
  await page.keyboard.press('Control+z');
  await expect(notice(page, /Undone: Changed what the note/)).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(list(page).getByRole('listitem')).toHaveCount(0);
});

test('part of a note is split off, joined again, and what is linked leads here', async ({ page }) => {
  await stage(page, 'Notes').click();
  await page.getByRole('button', { name: 'New note' }).click();
  await title(page).fill('Tern ledger');
  await page.keyboard.press('Enter');
  await page.keyboard.type('Kept in two hands.');
  await page.keyboard.press('Enter');
  await page.keyboard.type('The second dates by the tide. See @The minute of');
  await page
    .getByRole('option', { name: /^The minute of 21 February/ })
    .first()
    .click();
  await expect(saved(page)).toBeVisible();
  await editor(page).getByText('The second dates').click();
  await page.keyboard.press('Home');
  await page.getByRole('button', { name: 'Split off as a note' }).click();
  await expect(notice(page, /^Took the note “The second dates by the tide/)).toBeVisible();
  await expect(title(page)).toHaveValue(/^The second dates by the tide/);
  await page.getByRole('textbox', { name: 'Ask for notes' }).fill('"tern ledger"');
  await expect(list(page).getByRole('button', { name: 'Tern ledger' })).toBeVisible();
  await page.getByRole('textbox', { name: 'Ask for notes' }).fill('"tern ledger" or "second dates by the tide"');
  await expect(list(page).getByRole('listitem')).toHaveCount(2);
  await page.getByLabel('Choose Tern ledger').check();
  await page.getByLabel(/^Choose The second dates/).check();
  await page.getByRole('button', { name: 'Join 2 to the first' }).click();
  await expect(list(page).getByRole('listitem')).toHaveCount(1);
  await expect(editor(page)).toContainText('Kept in two hands.');
  await expect(editor(page)).toContainText('The second dates by the tide');
  await editor(page).getByRole('link', { name: 'The minute of 21 February' }).dblclick();
  await expect(title(page)).toHaveValue('The minute of 21 February');
  await expect(page.getByRole('article').getByRole('button', { name: 'Tern ledger' })).toBeVisible();
});

test('notes are looked at in time, as a web with its table, and put in an order by hand', async ({ page }) => {
  await page.goto('/notes?q=about:"promise of 1872"');
  await page.getByRole('button', { name: 'Timeline' }).click();
  const timeline = page.getByRole('group', { name: /^Timeline/ });
  await expect(timeline.getByRole('button', { name: /18 Feb 1872: Okonjo reminds/ })).toBeVisible();
  await timeline.getByRole('button', { name: /February 1871: Petition of the boatmen/ }).focus();
  await page.keyboard.press('Enter');
  await expect(title(page)).toHaveValue('Petition of the boatmen');
  await page.getByRole('button', { name: 'Web', exact: true }).click();
  await page
    .getByRole('application', { name: /^Web of \d+ nodes/ })
    .first()
    .focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('status').filter({ hasText: /tied to \d+ other/ })).toHaveCount(1);
  await page.getByRole('button', { name: 'As a table' }).click();
  await expect(page.getByRole('table', { name: 'What is tied to what' }).getByRole('row').nth(1)).toBeVisible();

  await page.getByRole('button', { name: 'Outlines' }).click();
  await page.getByRole('button', { name: 'New outline' }).click();
  await page.getByRole('textbox', { name: 'Name of the outline' }).fill('Talk at Ferrow');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Outline', { exact: true }).locator('option:checked')).toHaveText('Talk at Ferrow');
  const put = page.getByRole('combobox', { name: 'Note to put in' });
  for (const name of ['Tregenza denies', 'Starved of silt']) {
    await put.fill(name);
    await page.getByRole('option', { name: new RegExp(`^${name}`) }).click();
    await expect(page.getByRole('list', { name: 'Talk at Ferrow' })).toContainText(name);
  }
  await page.getByRole('button', { name: 'In: Starved of silt' }).click();
  await page.getByLabel('Used: Starved of silt').check();
  await expect(page.getByText('1 of 2 notes used')).toBeVisible();
  await page.keyboard.press('Escape');
});
