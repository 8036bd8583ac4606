import { expect, test, type Locator } from './world.ts';
import { ask, drop, ledger, line, makePdf, notice, signIn } from './person.ts';

const report = 'Report';

test.beforeEach(async ({ page }) => signIn(page));

/** The line of the report that tells of a file. */
const file = (pane: Locator, name: RegExp): Locator =>
  pane.getByRole('table', { name: 'Files' }).getByRole('row', { name });

test('a mix of sound and broken files: each has its outcome, each message its line, and it all can be undone', async ({
  page,
}) => {
  await drop(page, [
    {
      name: 'list.txt',
      content:
        '@article{reed, title = {Reed beds under a closed gate}, author = {Marsh, Ada}, year = 2011}\n@book{lost, title = {No brace closes here\n\n@book{weir, title = {The weir keepers}, author = {Weir, Kenzo}, year = 1974}\n',
    },
    { name: 'survey.bib', content: 'TY  - RPRT\nTI  - A survey wrongly named\nPY  - 2003\nER  - \n' },
    { name: 'broken.pdf', content: '%PDF-1.7\nthis is where the file was cut' },
    { name: 'holiday.jpg', content: new Uint8Array([255, 216, 255, 224, 0, 16, 74, 70, 73, 70]) },
  ]);
  const pane = page.getByRole('region', { name: report });
  await expect(pane.getByRole('heading', { name: 'list.txt and 3 more' })).toBeVisible();
  await expect(file(pane, /list\.txt BibTeX/i)).toContainText(/new/);
  await expect(file(pane, /survey\.bib RIS/i)).toContainText('1 source new');
  await expect(file(pane, /broken\.pdf/)).toContainText(/damaged/i);
  await expect(file(pane, /holiday\.jpg/)).toContainText(
    'The picture is damaged, or too large for its text to be recognised',
  );
  await expect(pane.getByText('list.txt, line 2')).toBeVisible();
  await expect(pane.getByText(/A brace does not close in the entry “lost”/)).toBeVisible();

  await pane.getByRole('button', { name: 'Undo this import' }).click();
  await expect(pane.getByText('This import is undone')).toBeVisible();
  await page.getByRole('link', { name: /^Sources/ }).click();
  await ask(page, 'title:"weir keepers"');
  await expect(page.getByRole('heading', { name: 'No source matches' })).toBeVisible();
});

test('the same file dropped again adds nothing, and says what is already here', async ({ page }) => {
  const twice = { name: 'twice.ris', content: 'TY  - BOOK\nTI  - Eel traps of the lower river\nPY  - 1931\nER  - \n' };
  const pane = page.getByRole('region', { name: report });
  for (const says of ['1 source new', '0 sources new, 1 already here']) {
    await drop(page, [twice]);
    await expect(file(pane, /twice\.ris/)).toContainText(says);
  }
  await page.getByRole('link', { name: /^Sources/ }).click();
  await ask(page, 'title:"eel traps"');
  await expect(ledger(page).getByRole('option')).toHaveCount(1);
});

test('a long job survives a reload, shows how far it is, and cancelled adds nothing', async ({ page }) => {
  test.slow();
  const pages = Array.from({ length: 5000 }, (_, i) => [
    `Logbook, leaf ${i + 1}`,
    'Wind from the west; the gate open.',
  ]);
  await drop(page, [{ name: 'logbook.pdf', content: await makePdf(pages) }]);
  const pane = page.getByRole('region', { name: report });
  await expect(pane.getByRole('progressbar', { name: 'Progress of the import' })).toBeVisible();
  await page.reload();
  await expect(pane.getByRole('progressbar', { name: 'Progress of the import' })).toBeVisible();
  await expect(page.getByRole('button', { name: '1 job running' })).toBeVisible();
  await pane.getByRole('button', { name: 'Cancel' }).click();
  await pane.getByRole('button', { name: 'Cancel it' }).click();
  await expect(pane.getByText('Cancelled; nothing was added')).toBeVisible({ timeout: 30_000 });
  await page.getByRole('link', { name: /^Sources/ }).click();
  await ask(page, 'logbook leaf');
  await expect(line(page, 'Logbook, leaf')).toHaveCount(0);
});

test('a source is added by hand and filled in', async ({ page }) => {
  await page.getByRole('link', { name: /^Gather/ }).click();
  await page.getByRole('combobox', { name: 'Kind' }).selectOption('Manuscript');
  await page.getByRole('textbox', { name: 'Title', exact: true }).fill('Minute book of the ferry trust');
  await page.getByRole('button', { name: 'Add it and fill it in' }).click();
  await expect(notice(page, /^Added/)).toBeVisible();
  await expect(line(page, 'Minute book of the ferry trust')).toBeVisible();
});
