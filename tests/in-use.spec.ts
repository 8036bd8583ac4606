/** What one meets in a day's work: that things keep their place, and that going away and coming back loses nothing. */
import { expect, test, type Page } from './world.ts';
import { ask, drop, dropDocument, ledger, line, makePdf, notice, signIn, slip } from './person.ts';

test.beforeEach(async ({ page }) => signIn(page));

const askLine = (page: Page) => page.getByRole('combobox', { name: 'Ask' });
const stage = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: new RegExp(`^${name}`) });
const chosen = (page: Page): Promise<string | null> => ledger(page).getAttribute('aria-activedescendant');

test('Escape closes what is open, and leaves the words, what is selected and the line one is at as they are', async ({
  page,
}) => {
  await ask(page, 'closure');
  await page.keyboard.press('Escape');
  await expect(ledger(page)).toBeFocused();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('x');
  const at = await chosen(page);
  for (const [placing, field] of [
    ['t', 'Add a tag'],
    ['f', 'Name of a collection'],
  ] as const) {
    await page.keyboard.press(placing);
    await expect(page.getByRole('combobox', { name: field })).toBeFocused();
    // One more than it takes: whoever is not sure presses again.
    for (let i = 0; i < 3; i += 1) await page.keyboard.press('Escape');
    await expect(ledger(page)).toBeFocused();
    await expect(askLine(page)).toHaveValue('closure');
    await expect(page.getByText('1 selected')).toBeVisible();
    expect(await chosen(page)).toBe(at);
  }
  await page.keyboard.press('X');
  await expect(page.getByText('1 selected')).toBeHidden();
  // After a tag has been given the keys go on in the list.
  await page.keyboard.press('t');
  await page.getByRole('combobox', { name: 'Add a tag' }).fill('closing');
  await page.keyboard.press('Enter');
  await expect(notice(page, 'Added the tag “closing” to 1 source')).toBeVisible();
  await expect(ledger(page)).toBeFocused();
  expect(await chosen(page)).toBe(at);
});

test('what an address names is shown and edited, also where the list has it already or does not have it', async ({
  page,
}) => {
  // Twice in a row: the second time the list stands there with the first.
  for (const title of ['A first by hand', 'A second by hand']) {
    await stage(page, 'Gather').click();
    await page.getByRole('textbox', { name: 'Title', exact: true }).fill(title);
    await page.getByRole('button', { name: 'Add it and fill it in' }).click();
    const form = page.getByRole('region', { name: 'Edit the record' });
    await expect(form.getByLabel('Title', { exact: true })).toHaveValue(title);
    await form
      .getByLabel('Publisher', { exact: true })
      .or(form.getByLabel('Published in', { exact: true }))
      .first()
      .fill(`House of ${title}`);
    await page.keyboard.press('Tab');
    await expect(notice(page, /^Changed/)).toBeVisible();
    await form.getByRole('button', { name: 'Done' }).click();
    await expect(slip(page)).toContainText(`House of ${title}`);
  }
  const named = page.url();
  await ledger(page).focus();
  await page.keyboard.press('End');
  await expect(page).not.toHaveURL(/at=/);
  await page.goto(named);
  await expect(slip(page)).toContainText('House of A second by hand');
  // In the bin it is not in the list any more: the address names it all the same.
  await slip(page).getByRole('button', { name: 'To the bin' }).click();
  await expect(notice(page, /^Moved/)).toBeVisible();
  await expect(page.getByText('The chosen source is not in this list')).toBeVisible();
  await expect(slip(page).getByRole('button', { name: 'Restore' })).toBeVisible();
});

test('words asked for and the line one was at are there after a visit to Read, and after a reload', async ({
  page,
}) => {
  await ask(page, 'gate');
  await ledger(page).focus();
  await page.keyboard.press('End');
  // The last line is fetched before one is at it.
  await expect
    .poll(async () => {
      // Both at once: between two looks the line may have been laid out anew.
      const line = page.locator(`[id="${await chosen(page)}"]`);
      const [place, of] = await line.evaluateAll((all) => ['aria-posinset', 'aria-setsize'].map((a) => all[0]?.getAttribute(a))); // prettier-ignore
      return place !== undefined && place === of;
    })
    .toBe(true);
  const at = await chosen(page);
  expect(at).not.toBeNull();
  await stage(page, 'Read').click();
  await expect(page).toHaveURL(/\/read/);
  await stage(page, 'Sources').click();
  await expect(askLine(page)).toHaveValue('gate');
  await expect.poll(() => chosen(page)).toBe(at);
  await page.reload();
  await expect(askLine(page)).toHaveValue('gate');
  await expect.poll(() => chosen(page)).toBe(at);
});

test('what one can do with a source stays in sight, however long its record is', async ({ page }) => {
  const abstract = 'The operators closed the gate late, and the silt came in. '.repeat(60);
  await drop(page, [
    {
      name: 'long.ris',
      content: `TY  - BOOK\nTI  - A long account of the weir\nAB  - ${abstract}\nN1  - ${abstract}\nER  - \n`,
    },
  ]);
  await expect(page.getByRole('row', { name: /long\.ris/ })).toContainText('1 source new');
  await stage(page, 'Sources').click();
  await ask(page, 'title:"long account of the weir"');
  await line(page, 'A long account of the weir').click();
  for (const name of ['Edit record', 'Cite', 'To the bin'])
    await expect(slip(page).getByRole('button', { name, exact: true })).toBeInViewport({ ratio: 1 });
});

test('one line a source, no tag is cut in a letter', async ({ page }) => {
  await page.getByRole('button', { name: 'Two lines' }).click();
  await page.getByRole('menuitem', { name: 'One line' }).click();
  await expect(page.getByRole('button', { name: 'Columns' })).toBeVisible();
  const cut = await ledger(page)
    .locator('.tag, .term')
    .evaluateAll((tags) =>
      tags
        .filter((tag) => {
          const [own, cell] = [tag.getBoundingClientRect(), tag.parentElement!.getBoundingClientRect()];
          const seen = own.top < cell.bottom - 1;
          return seen && own.right > cell.right + 1;
        })
        .map((tag) => tag.textContent),
    );
  expect(cut).toEqual([]);
  await page.getByRole('button', { name: 'One line' }).click();
  await page.getByRole('menuitem', { name: 'Two lines' }).click();
});

test('a notice covers nothing of the report one reads, and the report itself needs none', async ({ page }) => {
  await drop(page, [{ name: 'weir.ris', content: 'TY  - BOOK\nTI  - The weir and its notice\nER  - \n' }]);
  const report = page.getByRole('region', { name: 'Report' });
  await expect(report.getByRole('row', { name: /weir\.ris/ })).toContainText('1 source new');
  await expect(notice(page, /weir\.ris/)).toHaveCount(0);
  await report.getByRole('button', { name: 'Undo this import' }).click();
  const said = notice(page, /^Undone/);
  await expect(said).toBeVisible();
  const bar = (await page.getByRole('banner').boundingBox())!;
  const box = (await said.boundingBox())!;
  expect(box.y + box.height).toBeLessThanOrEqual(bar.y + bar.height);
});

test('selecting with the pointer ends on the line where one lets go, also beside it', async ({ page }) => {
  const lines = [
    'Log of the weir',
    'The keeper shut the gate at dusk.',
    'No boat passed before the tide.',
    'The ferry waited below.',
  ];
  await dropDocument(page, 'weir-log.pdf', await makePdf([lines, ['Second leaf', 'Nothing more.']]));
  await stage(page, 'Sources').click();
  await ask(page, 'title:"Log of the weir"');
  await line(page, 'Log of the weir').click();
  await slip(page)
    .getByRole('button', { name: /^Read ·/ })
    .click();
  const leaf = page.getByRole('region', { name: 'Page 1' });
  const boxOf = async (text: string) => (await leaf.getByText(text).boundingBox())!;
  await expect(leaf.getByText('The ferry waited')).toBeVisible();
  const [from, to] = [await boxOf('The keeper shut'), await boxOf('No boat passed')];
  await page.mouse.move(from.x + 2, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(to.x + to.width + 60, to.y + to.height / 2, { steps: 8 });
  await page.mouse.up();
  await expect(page.getByRole('status').filter({ hasText: /^Chosen:/ })).toHaveText(
    'Chosen: The keeper shut the gate at dusk. No boat passed before the tide.',
  );
  await page.keyboard.press('Escape');
  // Below the last line of the page as well, and the senses to choose from stay in the window.
  await page.mouse.move(from.x + 2, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(from.x + 200, 780, { steps: 8 });
  await page.mouse.up();
  await expect(page.getByRole('toolbar', { name: 'Mark the selection' })).toBeInViewport({ ratio: 1 });
  await expect(page.getByRole('status').filter({ hasText: /^Chosen:/ })).toContainText('The ferry waited below.');
});

test('who loads the page while the database is away is not signed out: it says so, and goes on by itself', async ({
  page,
}) => {
  await ask(page, 'closure');
  let away = true;
  await page.route('**/api/session', (route) =>
    away
      ? route.fulfill({
          status: 503,
          headers: { 'retry-after': '1', 'content-type': 'application/problem+json' },
          body: JSON.stringify({
            status: 503,
            code: 'database_away',
            detail: 'The database does not answer just now.',
          }),
        })
      : route.continue(),
  );
  await page.reload();
  await expect(page.getByRole('status').filter({ hasText: 'The server does not answer just now' })).toBeVisible();
  expect(new URL(page.url()).pathname).toBe('/sources');
  away = false;
  await expect(askLine(page)).toHaveValue('closure');
});

test('a part of the page that went with an upgrade comes with the page as it is now; what cannot be had is said', async ({
  page,
}) => {
  let gone = 1;
  await page.route(/assets\/CheckView.*js/, (route) =>
    gone-- > 0 ? route.fulfill({ status: 404, body: '' }) : route.continue(),
  );
  await stage(page, 'Check').click();
  await expect(page.getByRole('complementary', { name: 'Queues' })).toBeVisible();
  gone = 99;
  await page.route(/assets\/ReadView.*js/, (route) => route.fulfill({ status: 404, body: '' }));
  await stage(page, 'Read').click();
  await expect(page.getByText(/^That part of the page could not be fetched/)).toBeVisible();
});

test('a field left while nobody answers is kept, over a reload too, and saved as soon as somebody does', async ({
  page,
}) => {
  await ask(page, 'title:"who closes"');
  await ledger(page).focus();
  await page.keyboard.press('e');
  const patched = page.waitForRequest((request) => request.method() === 'PATCH');
  await page.route('**/api/w/**', (route) => (route.request().method() === 'PATCH' ? route.abort() : route.continue()));
  const volume = page.getByRole('textbox', { name: 'Volume', exact: true });
  await volume.fill('36');
  await volume.press('Tab');
  await patched;
  const waits = page.getByRole('button', { name: '1 not saved yet' });
  await expect(waits).toBeVisible();
  page.once('dialog', (dialog) => void dialog.accept());
  await page.reload();
  await waits.click();
  await expect(page.getByRole('list', { name: 'Not saved yet' })).toContainText('Volume of “Who Closes the Gate?');
  await page.unroute('**/api/w/**');
  await expect(notice(page, 'Changed volume')).toBeVisible();
  await expect(waits).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(notice(page, 'Undone: Changed volume')).toBeVisible();
});
