/** Two people at once, each in a browser of their own. */
import { expect, test, type Browser, type Page } from './world.ts';
import { ask, ledger, line, notice, signIn, slip } from './person.ts';

async function at(browser: Browser, baseURL: string | undefined, who: 'marit' | 'ines'): Promise<Page> {
  const context = await browser.newContext({ ...(baseURL && { baseURL }) });
  const page = await context.newPage();
  await signIn(page, who);
  return page;
}

test('what one does the other sees without asking, and stays at the line they were at', async ({
  browser,
  baseURL,
}) => {
  const [marit, ines] = [await at(browser, baseURL, 'marit'), await at(browser, baseURL, 'ines')];
  await ask(marit, 'title:"Pioneer zones"');
  await ask(ines, 'title:"Pioneer zones"');
  await ledger(ines).focus();
  await ines.keyboard.press('t');
  await ines.getByRole('combobox', { name: 'Add a tag' }).fill('seen together');
  await ines.keyboard.press('Enter');
  await expect(line(ines, 'Pioneer zones')).toContainText('seen together');
  await expect(line(marit, 'Pioneer zones')).toContainText('seen together');
  await expect(slip(marit).getByText('seen together')).toBeVisible();
  // The facet counts it too, and so does the history.
  await expect(
    marit.getByRole('complementary', { name: 'Narrow' }).getByRole('button', { name: /^seen together/ }),
  ).toBeVisible();
});

test('of two who edit one field the later is shown both values, and chooses', async ({ browser, baseURL }) => {
  const [marit, ines] = [await at(browser, baseURL, 'marit'), await at(browser, baseURL, 'ines')];
  const title = (page: Page) => page.getByLabel('Title', { exact: true });
  for (const page of [marit, ines]) {
    await ask(page, 'title:"Injunctions against the tide"');
    // The slip of what was asked for, not yet of the first of all.
    await expect(slip(page).getByTestId('citation')).toContainText('Injunctions against the Tide');
    await slip(page).getByRole('button', { name: 'Edit record' }).click();
  }
  await title(marit).fill('Injunctions against the tide, second edition');
  await title(ines).fill('Injunctions against the tide, revised');
  await title(ines).press('Control+Enter');
  await expect(notice(ines, 'Changed title')).toBeVisible();
  await title(marit).press('Control+Enter');
  const both = marit.getByRole('alert').filter({ hasText: 'Ines Vance changed this since you opened it' });
  await expect(both).toContainText('Injunctions against the tide, revised');
  // Whoever does not choose at once finds both again, after a reload too.
  marit.once('dialog', (leave) => void leave.accept());
  await marit.reload();
  await marit.getByRole('button', { name: '1 not saved yet' }).click();
  await expect(marit.getByText('Ines Vance wrote something else there meanwhile')).toBeVisible();
  await marit.keyboard.press('Escape');
  await slip(marit).getByRole('button', { name: 'Edit record' }).click();
  await expect(both).toContainText('Injunctions against the tide, revised');
  await expect(title(marit)).toHaveValue('Injunctions against the tide, second edition');
  await both.getByRole('button', { name: 'Use mine' }).click();
  await expect(both).toBeHidden();
  await expect(line(ines, 'second edition')).toBeVisible();
  // Ines cannot take back what is no longer there, and is told whose it is.
  await ines.getByRole('button', { name: 'Done' }).click();
  await ledger(ines).focus();
  await ines.keyboard.press('Control+z');
  await expect(ines.getByRole('alert')).toContainText(
    'This cannot be undone any more: Marit Okonjo changed title since then.',
  );
});

test('a star is one’s own: asked for, counted, and not seen by another', async ({ browser, baseURL }) => {
  const [marit, ines] = [await at(browser, baseURL, 'marit'), await at(browser, baseURL, 'ines')];
  await ask(ines, 'is:starred');
  await expect(ines.getByRole('heading', { name: 'No source matches' })).toBeVisible();
  await ask(marit, 'title:"Closing early or closing well"');
  await ledger(marit).focus();
  await marit.keyboard.press('s');
  await expect(notice(marit, 'Starred 1 source')).toBeVisible();
  await expect(slip(marit).getByRole('button', { name: 'Starred' })).toHaveAttribute('aria-pressed', 'true');
  await ask(marit, 'is:starred closing');
  await expect(line(marit, 'Closing early')).toBeVisible();
  await ask(ines, 'title:"Closing early or closing well"');
  await expect(slip(ines).getByRole('button', { name: 'Star', exact: true })).toBeVisible();
});

test('a gloss for oneself alone is found by nobody else until it is shown to all', async ({ browser, baseURL }) => {
  const [marit, ines] = [await at(browser, baseURL, 'marit'), await at(browser, baseURL, 'ines')];
  await ask(marit, 'title:"Closing early or closing well"');
  await line(marit, 'Closing early').click();
  await slip(marit).getByRole('button', { name: '+ gloss' }).click();
  await marit.keyboard.type('Perspicuous on the sluices');
  await slip(marit).getByRole('checkbox', { name: 'For yourself alone' }).check();
  await slip(marit).getByRole('button', { name: 'Save' }).click();
  const glosses = slip(marit).getByRole('region', { name: 'Glosses' });
  await expect(glosses).toContainText('yours alone');
  await ask(marit, 'perspicuous');
  await expect(line(marit, 'Closing early')).toContainText('Perspicuous on the sluices');
  await ask(ines, 'perspicuous');
  await expect(ines.getByRole('heading', { name: 'No source matches' })).toBeVisible();
  await line(marit, 'Closing early').click();
  await glosses.getByRole('button', { name: 'Show the gloss to all members' }).click();
  await expect(glosses).not.toContainText('yours alone');
  await ask(ines, 'perspicuous sluices');
  await expect(line(ines, 'Closing early')).toBeVisible();
});

test('all that match but one are filed as one change, and taken back as one', async ({ page }) => {
  await signIn(page);
  await ask(page, 'kind:manuscript');
  const all = Number(/^(\d+) sources/.exec((await page.getByText(/^\d+ sources$/).textContent()) ?? '')![1]);
  await ledger(page).focus();
  await page.keyboard.press('Control+a');
  await page.keyboard.press('x');
  await expect(page.getByText(`${all - 1} selected`)).toBeVisible();
  await page.keyboard.press('f');
  await page.getByRole('combobox', { name: 'Name of a collection' }).fill('transects');
  await page.getByRole('option', { name: /Transects/ }).click();
  await expect(notice(page, new RegExp(`Filed ${all - 1} sources in Transects`))).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(notice(page, /Undone: Filed/)).toBeVisible();
  await ask(page, 'kind:manuscript in:transects');
  await expect(page.getByRole('heading', { name: 'No source matches' })).toBeVisible();
});
