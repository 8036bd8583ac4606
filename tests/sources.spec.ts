import { countSources } from '@pandecta/core/changes';
import { expect, test, type Locator } from './world.ts';
import { ask, ledger, line, notice, signIn, slip } from './person.ts';

test.beforeEach(async ({ page }) => signIn(page));

test('the ask line narrows as one types, by field and by facet', async ({ page }) => {
  const total = page.getByText(/^\d+ sources?$/);
  const numberIn = async (of: Locator): Promise<number> => Number(/\d+/.exec((await of.textContent())!)![0]);
  const all = (await total.textContent())!;
  await ask(page, 'journal:shore year:1980-');
  await expect(total).not.toHaveText(all);
  const asked = await numberIn(total);
  const articles = page.getByRole('complementary', { name: 'Narrow' }).getByRole('button', { name: /Journal article/ });
  // The counts follow the list.
  await expect.poll(() => numberIn(articles)).toBeLessThan(asked);
  const within = await numberIn(articles);
  await articles.click();
  await expect(page.getByText('kind: journal article')).toBeVisible();
  await expect(total).toHaveText(countSources(within));
  await articles.click();
  await expect(page.getByText('not kind: journal article')).toBeVisible();
  await expect(total).toHaveText(countSources(asked - within));
});

test('a record is edited in place, with the fields of its kind, and the edit is undone with Ctrl+Z', async ({
  page,
}) => {
  await ask(page, 'title:"Marsh as plaintiff"');
  await line(page, 'Marsh as plaintiff').click();
  await slip(page).getByRole('button', { name: 'Edit record' }).click();
  await expect(page.getByLabel('Event', { exact: true })).toBeVisible();
  await page.getByLabel('Title', { exact: true }).fill('Marsh as defendant');
  await page.getByLabel('Title', { exact: true }).blur();
  await expect(notice(page, 'Changed title')).toBeVisible();
  await page.getByRole('button', { name: 'Done' }).click();
  // The source no longer matches what was asked, so the list may be gone; undoing needs none.
  await page.keyboard.press('Control+z');
  await expect(notice(page, 'Undone: Changed title')).toBeVisible();
  await expect(slip(page).getByTestId('citation')).toContainText('Marsh as Plaintiff');
  // The list comes back once its words are found again, and the slip with it.
  await expect(async () => {
    const history = slip(page).getByRole('button', { name: 'History' });
    if (await history.isVisible()) await history.click();
    await expect(page.getByRole('region', { name: 'History' })).toContainText(
      'Marsh as plaintiff → Marsh as defendant',
      { timeout: 3000 },
    );
  }).toPass({ timeout: 20_000 });
});

test('several are selected with the keyboard, tagged, and the tag is found by name', async ({ page }) => {
  await ask(page, 'kind:case');
  await expect(line(page, 'Re Withy Sluice Licence')).toBeVisible();
  await ledger(page).focus();
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Shift+ArrowDown');
  await expect(page.getByRole('heading', { name: '3 sources' })).toBeVisible();
  await page.keyboard.press('t');
  await page.getByRole('combobox', { name: 'Add a tag' }).fill('for the brief');
  await page.getByRole('option', { name: 'New tag “for the brief”' }).click();
  await expect(notice(page, 'Added the tag “for the brief” to 3 sources')).toBeVisible();
  await ask(page, 'tag:"for the brief"');
  await expect(page.getByText('3 sources', { exact: true }).first()).toBeVisible();
  // Typed in part it is the one that is there, not a new one.
  await ask(page, 'kind:map');
  await expect(line(page, 'Plan of the proposed gate')).toBeVisible();
  await ledger(page).focus();
  await page.keyboard.press('t');
  await page.getByRole('combobox', { name: 'Add a tag' }).pressSequentially('for the');
  await expect(page.getByRole('option', { name: 'for the brief' }).first()).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(notice(page, 'Added the tag “for the brief” to 1 source')).toBeVisible();
});

test('sources are dragged onto a new collection, and taken out again without being lost', async ({ page }) => {
  await page.getByRole('button', { name: 'New collection' }).click();
  await page.getByRole('textbox', { name: 'Name of the new collection' }).fill('Witnesses');
  await page.keyboard.press('Enter');
  const place = page.getByRole('group', { name: 'Witnesses' });
  await expect(place).toBeVisible();
  await ask(page, 'Interview with a former gatekeeper');
  await line(page, 'Interview with').dragTo(place.getByRole('button', { name: 'Witnesses' }).first());
  await expect(notice(page, 'Filed 1 source in Witnesses')).toBeVisible();
  await slip(page).getByRole('button', { name: 'Remove from Witnesses' }).click();
  await expect(notice(page, /Removed 1 source from Witnesses; (still in|the source stays)/)).toBeVisible();
});

test('a source goes to the bin and is restored with all it had', async ({ page }) => {
  await ask(page, 'title:"Plan of the proposed gate"');
  await line(page, 'Plan of the proposed gate').click();
  await page.keyboard.press('Delete');
  await expect(notice(page, 'Moved 1 source to the bin')).toBeVisible();
  await expect(page.getByText('No source matches')).toBeVisible();
  await page
    .getByRole('complementary', { name: 'Places' })
    .getByRole('button', { name: /1 source, kept 30 days/ })
    .click();
  await line(page, 'Plan of the proposed gate').click();
  await slip(page).getByRole('button', { name: 'Restore' }).click();
  await expect(notice(page, 'Restored 1 source')).toBeVisible();
});

test('a citation with a page is written by the keyboard alone, twice', async ({ page }) => {
  await ask(page, 'title:"Public Trust in Tidal Waters Revisited"');
  await expect(line(page, 'Public Trust')).toBeVisible();
  for (const place of ['12–14', '33']) {
    await ledger(page).focus();
    await page.keyboard.press('Shift+C');
    const form = page.getByRole('dialog', { name: 'Cite with a page' });
    await expect(form.getByLabel('Where in it')).toBeFocused();
    await page.keyboard.type(place);
    await expect(form.getByTestId('cited')).toContainText(place);
    await page.keyboard.press('Enter');
    await expect(form).toHaveCount(0);
    await expect(notice(page, new RegExp(`^Copied .*, ${place}`))).toBeVisible();
    expect(await page.evaluate(() => navigator.clipboard.readText())).toContain(`, ${place})`);
  }
});

test('the other reports of a case are filled in a row each, and printed behind the first', async ({ page }) => {
  await ask(page, 'title:"Re Withy Sluice Licence"');
  await line(page, 'Re Withy').click();
  await slip(page).getByRole('button', { name: 'Edit record' }).click();
  const form = page.getByRole('region', { name: 'Edit the record' });
  await form.getByRole('button', { name: 'Add a report' }).click();
  await page.keyboard.type('(1991)');
  for (const [part, value] of [
    ['Volume', '9'],
    ['Report', 'Marsh R'],
    ['First page', '77'],
    ['Court', 'CA'],
  ])
    // prettier-ignore
    await form.getByLabel(`${part} of report 3`).fill(value!);
  await form.getByLabel('Pages', { exact: true }).focus();
  await expect(notice(page, /^Changed parallel citations/)).toBeVisible();
  await form.getByRole('button', { name: 'Done' }).click();
  await slip(page).getByRole('button', { name: 'Style' }).click();
  await page.keyboard.type('oscola');
  await page
    .getByRole('button', { name: /^OSCOLA/ })
    .first()
    .click();
  await expect(slip(page).getByTestId('citation')).toContainText(
    '31, [1991] 2 Sallow LR 101, [1991] Vale Rep 13, 16, (1991) 9 Marsh R 77 (CA)',
  );
});

test('any style by name, and the selection leaves as BibTeX', async ({ page }) => {
  await ask(page, 'title:"Public Trust in Tidal Waters Revisited"');
  await line(page, 'Public Trust').click();
  await slip(page).getByRole('button', { name: 'Style' }).click();
  // The box has the keys as soon as it opens: what is typed is no command to the list.
  await expect(page.getByRole('textbox', { name: 'Find a style' })).toBeFocused();
  await page.keyboard.type('ieee');
  await page.getByRole('button', { name: /^IEEE/ }).first().click();
  await expect(slip(page).getByTestId('citation')).toContainText('[1]');
  await page.keyboard.press('x');
  await ask(page, 'kind:thesis');
  await expect(page.getByText(/^\d+ sources$/).first()).toBeVisible();
  await ledger(page).focus();
  await page.keyboard.press('Control+a');
  await page.getByRole('button', { name: 'Export' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'BibTeX' }).click();
  expect((await download).suggestedFilename()).toBe('sources.bib');
});

test('one line a source, columns chosen, sorted by two keys', async ({ page }) => {
  await page.getByRole('button', { name: 'Two lines' }).click();
  await page.getByRole('menuitem', { name: 'One line' }).click();
  await page.getByRole('button', { name: /^Kind/ }).last().waitFor({ state: 'attached' });
  await page.getByRole('button', { name: 'Year', exact: true }).click();
  await page.getByRole('button', { name: /^Title$/ }).click({ modifiers: ['Shift'] });
  await expect(page.getByRole('button', { name: /Sorted by year ↓, then title ↑/ })).toBeVisible();
  await page.getByRole('button', { name: 'One line' }).click();
  await page.getByRole('menuitem', { name: 'Two lines' }).click();
});

test('a reader sees no way to change anything', async ({ page, context }) => {
  // A page whose session has ended goes to the form by itself: going elsewhere at that moment may never be told to end.
  await page.goto('about:blank');
  await context.clearCookies();
  await signIn(page, 'tobias');
  await expect(ledger(page).getByRole('option').first()).toBeVisible();
  await expect(page.getByRole('link', { name: 'Add sources' })).toHaveCount(0);
  await expect(slip(page).getByRole('button', { name: 'History' })).toBeVisible();
  await expect(slip(page).getByRole('button', { name: 'Edit record' })).toHaveCount(0);
});

test('by the keyboard alone: filed in a collection by its name, and the keys go on where they were', async ({
  page,
}) => {
  await ask(page, 'title:"Plan of the proposed gate"');
  await ledger(page).focus();
  await page.keyboard.press('f');
  const name = page.getByRole('combobox', { name: 'Name of a collection' });
  await expect(name).toBeFocused();
  await page.keyboard.type('chap');
  await expect(page.getByRole('option', { name: /Licensing › Chapter 2/ })).toBeVisible();
  // One Escape closes, whatever was typed; nothing is filed.
  await page.keyboard.press('Escape');
  await expect(name).toBeHidden();
  await expect(ledger(page)).toBeFocused();
  await page.keyboard.press('f');
  await page.keyboard.type('chapter 2');
  await expect(page.getByRole('option', { name: /Licensing › Chapter 2/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(notice(page, /Filed .*Chapter 2/)).toBeVisible();
  await expect(slip(page)).toContainText('Chapter 2');
  await page.keyboard.press('Control+z');
  await expect(notice(page, /Undone: Filed/)).toBeVisible();
});

test('any command, collection or source by name', async ({ page }) => {
  const box = page.getByRole('combobox', { name: 'A command, a collection or a source' });
  await page.keyboard.press('Control+k');
  await page.keyboard.type('estuary ottery');
  await expect(page.getByText('Nothing of this name.')).toBeHidden();
  await page.keyboard.press('Escape');
  await expect(box).toBeHidden();
  await page.keyboard.press('Control+k');
  await box.fill('cases lic');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/^18 sources$/).first()).toBeVisible();
  await page.keyboard.press('Control+k');
  await box.fill('gather');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Bring in', exact: true })).toBeVisible();
});

test('a gloss on a whole source is written by keys, found by its words, rewritten and undone', async ({ page }) => {
  await ask(page, 'title:"Marsh as plaintiff"');
  await line(page, 'Marsh as plaintiff').click();
  await slip(page).getByRole('button', { name: '+ gloss' }).press('Enter');
  const field = slip(page).getByLabel('Gloss on the whole source');
  await expect(field).toBeFocused();
  await page.keyboard.type('Argues from standing alone, quixotically');
  // What is written is not lost by Esc.
  await page.keyboard.press('Escape');
  await expect(field).toHaveValue(/quixotically/);
  // Nor by looking at another source, or by loading the page again.
  await ask(page, 'title:"Plan of the proposed gate"');
  await line(page, 'Plan of the proposed gate').click();
  await expect(field).toHaveCount(0);
  await page.reload();
  await ask(page, 'title:"Marsh as plaintiff"');
  await line(page, 'Marsh as plaintiff').click();
  await expect(field).toHaveValue(/quixotically/);
  await field.press('Control+Enter');
  const glosses = slip(page).getByRole('region', { name: 'Glosses' });
  await expect(glosses).toContainText('Argues from standing alone, quixotically');
  await ask(page, 'quixotically has:gloss');
  await expect(line(page, 'Marsh as plaintiff')).toBeVisible();
  await ask(page, 'title:"Marsh as plaintiff"');
  await line(page, 'Marsh as plaintiff').click();
  await glosses.getByRole('button', { name: 'Edit the gloss' }).press('Enter');
  await field.fill('Argues from standing');
  await slip(page).getByRole('button', { name: 'Save' }).click();
  await expect(glosses).toContainText('Argues from standing');
  await expect(glosses).not.toContainText('quixotically');
  await page.keyboard.press('Control+z');
  await expect(glosses).toContainText('quixotically');
});

test('a style that has no form for a source says so, and copies the others', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await ask(page, 'title:"Marsh as plaintiff" or title:"Plan of the proposed gate"');
  await ledger(page).focus();
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Escape');
  await line(page, 'Plan of the proposed gate').click();
  await slip(page).getByRole('button', { name: 'Style' }).click();
  await page.getByRole('textbox', { name: 'Find a style' }).fill('springer basic note');
  await page.getByRole('button', { name: /^Springer - Basic \(note/ }).click();
  await expect(slip(page)).toContainText('prints nothing for a source like this');
  await ledger(page).focus();
  await page.keyboard.press('Control+a');
  await page.keyboard.press('c');
  await expect(notice(page, /prints nothing for 1 of the 2 sources/)).toBeVisible();
  expect(await page.evaluate(() => navigator.clipboard.readText())).toContain('Marsh as plaintiff');
});

test('a year before the common era is written and shown as people write it', async ({ page }) => {
  await ask(page, 'title:"Chart of the Sallow mouth with soundings"');
  await line(page, 'Chart of the Sallow mouth').click();
  await slip(page).getByRole('button', { name: 'Edit record' }).click();
  const date = page.getByLabel('Date', { exact: true });
  await date.fill('44 BC');
  await date.blur();
  await expect(notice(page, /Changed date/)).toBeVisible();
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(slip(page)).toContainText('44 BC');
  await page.keyboard.press('Control+z');
  await expect(notice(page, /Undone: Changed date/)).toBeVisible();
});

test('words that match nothing in the bin are told from an empty bin', async ({ page }) => {
  await page.goto('/sources?scope=bin');
  await expect(page.getByRole('heading', { name: 'The bin is empty' })).toBeVisible();
  await page.goto('/sources?scope=bin&q=zebra');
  await expect(page.getByRole('heading', { name: 'No source matches' })).toBeVisible();
  await expect(page.getByText('Try other words, or fewer.')).toBeVisible();
});
