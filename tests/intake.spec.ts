import { expect, test, type Locator, type Page } from './world.ts';
import { ask, ledger, line, notice, signIn } from './person.ts';

const box = (page: Page): Locator => page.getByRole('textbox', { name: 'Identifiers, references, links' });
const waiting = (page: Page): Locator => page.getByRole('listbox', { name: 'What waits' });
const chosen = (page: Page): Locator => page.getByRole('complementary', { name: 'Chosen' });
const gather = (page: Page): Locator => page.getByRole('link', { name: /^Gather/ });

test.beforeEach(async ({ page }) => signIn(page));

test('what is pasted anywhere is seen for what it is, goes where it was said, waits, and is taken in', async ({
  page,
}) => {
  await ledger(page).focus();
  await page.evaluate((text) => {
    const data = new DataTransfer();
    data.setData('text/plain', text);
    document.activeElement!.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    );
  }, '10.5555/withy.2026.0001\n978-0-00-712345-?\n\nWeir, Ada. The Keeper at the Weir. Withy: Ebbside Books, 1931.');
  await expect(box(page)).toBeFocused();
  await expect(page.getByText('Seen:')).toHaveText(/1 DOI, 1 ISBN \(check digit wrong: it would be 2\), 1 reference/);

  await page.getByRole('button', { name: '+ collection, tag…' }).click();
  await page.getByRole('menuitem', { name: 'Collection', exact: true }).click();
  await page.getByRole('combobox', { name: 'Name of a collection' }).fill('chapter 2');
  await page.getByRole('option', { name: 'Licensing › Chapter 2' }).click();
  await box(page).focus();
  await page.keyboard.press('Control+Enter');

  await waiting(page)
    .getByRole('option', { name: /Reopening Withy Sluice/ })
    .click();
  await expect(chosen(page).getByText('From the registry, 97 % sure')).toBeVisible();
  await expect(chosen(page).getByText('Licensing › Chapter 2')).toBeVisible();
  await waiting(page).focus();
  await page.keyboard.press('i');
  await expect(notice(page, 'Took in 1 source')).toBeVisible();
  await page.getByRole('link', { name: /^Sources/ }).click();
  await ask(page, 'title:"Reopening Withy Sluice"');
  await line(page, 'Reopening Withy Sluice').click();
  await expect(
    page.getByRole('region', { name: 'Slip', exact: true }).getByRole('link', { name: 'Licensing › Chapter 2' }),
  ).toBeVisible();
});

test('one that is here already is joined by a key, with its reasons in sight, and comes back when that is undone', async ({
  page,
}) => {
  await gather(page).click();
  const one = waiting(page).getByRole('option', { name: /Sediment starvation behind permanently closed/ });
  await one.click();
  await expect(one).toContainText('here already, in 1 place');
  await expect(chosen(page).getByText(/same title, same authors, same year/)).toBeVisible();
  await expect(chosen(page).getByRole('heading', { name: 'As it came' })).toBeVisible();
  await waiting(page).focus();
  await page.keyboard.press('Enter');
  await expect(notice(page, /^Joined to “Sediment starvation/)).toBeVisible();
  await expect(one).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(one).toHaveCount(1);
});

test('what lacks something is mended in place; of the complete ones those left ticked are taken in, what is set aside comes back', async ({
  page,
}) => {
  await gather(page).click();
  await page.getByRole('button', { name: /^Missing:/ }).click();
  await page.getByRole('menuitem', { name: /^date/ }).click();
  await page.keyboard.press('Escape');
  const one = waiting(page).getByRole('option', { name: /Inquiry hears of the promise/ });
  await one.click();
  await waiting(page).focus();
  await page.keyboard.press('e');
  await chosen(page).getByLabel('Date', { exact: true }).fill('24 November 2026');
  await chosen(page).getByLabel('Date', { exact: true }).press('Tab');
  await expect(one).toHaveCount(0);
  await page.getByRole('button', { name: /^Missing:/ }).click();
  await page.getByRole('menuitem', { name: 'Anything' }).click();
  await page.keyboard.press('Escape');

  const before = await gather(page).innerText();
  await page.getByRole('button', { name: /^Take in the \d+ complete ones…$/ }).click();
  const ones = page.getByRole('region', { name: 'Complete ones' });
  await expect(ones.getByRole('checkbox').first()).toBeVisible();
  const how = await ones.getByRole('checkbox').count();
  await ones.getByRole('checkbox').first().uncheck();
  await ones.getByRole('button', { name: `Take in ${how - 1}` }).click();
  await expect(notice(page, new RegExp(`^Took in ${how - 1} source`))).toBeVisible();
  await expect(page.getByRole('button', { name: 'Take in the complete one…' })).toBeVisible();
  await expect(gather(page)).not.toHaveText(before);

  await waiting(page).getByRole('option', { name: /ibid/ }).click();
  await waiting(page).focus();
  await page.keyboard.press('Delete');
  await expect(notice(page, 'Set 1 source aside, kept there 30 days')).toBeVisible();
  await page.getByRole('button', { name: 'Set aside: 1' }).click();
  await waiting(page).getByRole('option', { name: /ibid/ }).click();
  await chosen(page).getByRole('button', { name: 'Put back into the intake' }).click();
  await page.getByRole('button', { name: 'Back to the intake' }).click();
  await expect(waiting(page).getByRole('option', { name: /ibid/ })).toBeVisible();
});

test('several catalogues are searched at once; what is chosen waits in the intake, the search stays in the log', async ({
  page,
}) => {
  await gather(page).click();
  await page.getByRole('textbox', { name: 'Words to search for outside' }).fill('night watch telemetry');
  await page.getByRole('button', { name: 'Search', exact: true }).click();
  const found = page.getByRole('listbox', { name: 'Works found' });
  await expect(found.getByRole('option').first()).toContainText('3 catalogues');
  await expect(page.getByRole('list', { name: 'Catalogues' })).toHaveText(
    /Northmere Catalogue: \d+.*Open Registry of Works: \d+.*Shoreline Index: \d+/,
  );
  await found.focus();
  await page.keyboard.press('x');
  await page.keyboard.press('j');
  await page.keyboard.press('x');
  await page.getByRole('button', { name: 'Gather 2' }).click();
  await expect(found.getByText('in the intake')).toHaveCount(2);
  await page.getByRole('textbox', { name: 'Why this search was made' }).fill('For the operators chapter');
  await page.keyboard.press('Enter');
  await page.getByRole('link', { name: '‹ The intake' }).click();
  await expect(waiting(page).getByText('3 catalogues, “night watch telemetry”')).toBeVisible();
  await page.getByRole('link', { name: /^night watch telemetry/ }).click();
  await expect(page.getByRole('textbox', { name: 'Why this search was made' })).toHaveValue(
    'For the operators chapter',
  );
});

test('a reader is shown what was brought in, and neither box nor intake', async ({ browser, baseURL }) => {
  const page = await browser.newPage({ baseURL: baseURL! });
  await signIn(page, 'tobias');
  await gather(page).click();
  await expect(page.getByText('As a reader you see what was brought in.')).toBeVisible();
  await expect(box(page)).toHaveCount(0);
  await expect(waiting(page)).toHaveCount(0);
  await page.close();
});

test('at half the width the list keeps its room, and what one brings in or has chosen is a press away', async ({
  page,
}) => {
  await page.setViewportSize({ width: 683, height: 533 });
  await gather(page).click();
  const lines = waiting(page).getByRole('option');
  await expect(lines.nth(4)).toBeInViewport();
  await expect(chosen(page)).toHaveCount(0);
  await lines.nth(2).click();
  await page.getByRole('button', { name: 'The chosen one' }).click();
  await expect(chosen(page).getByRole('button', { name: 'Set aside' })).toBeInViewport();
  await page.getByRole('button', { name: 'Bring in' }).click();
  await expect(box(page)).toBeInViewport();
  await expect(chosen(page)).toHaveCount(0);
});
