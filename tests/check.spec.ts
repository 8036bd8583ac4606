/** Check: duplicates become one, records become right, nothing lies loose. */
import { expect, test } from './world.ts';
import { line, notice, signIn } from './person.ts';

test('duplicates are compared and merged by keys, one after another, and each can be undone', async ({ page }) => {
  await signIn(page);
  await page.goto('/check');
  const groups = page.getByRole('list', { name: 'Groups' });
  const first = groups.getByRole('button').first();
  await expect(first).toContainText('records');
  const count = await groups.getByRole('button').count();
  const title = (await first.locator('span').first().textContent())!;
  const beside = page.getByRole('table', { name: 'The records beside each other' });
  await expect(beside.getByRole('button', { name: 'Title of A' })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'After merging' })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(notice(page, `Merged 2 sources into “${title}”`)).toBeVisible();
  await expect(groups.getByRole('button')).toHaveCount(count - 1);
  // The next is there already.
  await expect(page.getByRole('heading', { name: /records of one work/ })).toBeVisible();
  // The line that says what happened may be gone by now; the key undoes all the same.
  await page.keyboard.press('Control+z');
  await expect(groups.getByRole('button')).toHaveCount(count);
  await page.getByRole('button', { name: 'Compare all sources once more' }).click();
  await expect(notice(page, /Compared 4\d\d sources with each other; \d+ pairs are worth a look/)).toBeVisible();
  await expect(groups.getByRole('button')).toHaveCount(count);
});

test('a value is chosen by a click or by arrows, and the citation follows', async ({ page }) => {
  await signIn(page);
  await page.goto('/check');
  const groups = page.getByRole('list', { name: 'Groups' });
  await groups.getByRole('button', { name: /Creek networks at Kelsing Sound/ }).click();
  const after = page.getByRole('region', { name: 'Duplicates' }).locator('.border-verdigris .font-serif').last();
  const beside = page.getByRole('table', { name: 'The records beside each other' });
  // What came from a database stands over what was typed.
  const years = [beside.getByRole('button', { name: 'Date of A' }), beside.getByRole('button', { name: 'Date of B' })];
  const other = (await years[1]!.textContent())!;
  await expect(years[0]!).toHaveAttribute('aria-pressed', 'true');
  await years[1]!.click();
  await expect(years[1]!).toHaveAttribute('aria-pressed', 'true');
  await expect(after).toContainText(other);
  await page.getByRole('heading', { level: 1 }).click();
  for (let i = 0; i < 2; i += 1) await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowLeft');
  await expect(years[0]!).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Two records');
  await page.keyboard.press('j');
  await expect(groups.getByRole('button', { name: /Creek networks at Kelsing Sound/ })).not.toHaveAttribute('aria-current', 'true'); // prettier-ignore
});

test('those that are certain are merged after a look at the list, and what is not the same is not asked again', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/check');
  const groups = page.getByRole('list', { name: 'Groups' });
  await expect(groups.getByRole('button').first()).toBeVisible();
  const before = await groups.getByRole('button').count();
  await page.getByRole('button', { name: /^Merge the .*certain/ }).click();
  const certain = page.getByRole('group', { name: 'Those that are certain' });
  const all = await certain.getByRole('checkbox').count();
  await certain.getByRole('checkbox').first().uncheck();
  await certain.getByRole('button', { name: /^Merge/ }).click();
  await expect(notice(page, all === 2 ? /Merged 1 group/ : `Merged ${all - 1} groups`)).toBeVisible();
  const left = before - (all - 1);
  await expect(groups.getByRole('button')).toHaveCount(left);
  const last = groups.getByRole('button').last();
  await last.click();
  await expect(last).toHaveAttribute('aria-current', 'true');
  await expect(page.getByRole('button', { name: 'Title of A' })).toHaveText(
    (await last.locator('span').first().textContent())!,
  );
  await page.keyboard.press('n');
  await expect(notice(page, 'Marked 2 sources as not the same work')).toBeVisible();
  await expect(groups.getByRole('button')).toHaveCount(left - 1);
  await page.reload();
  await expect(groups.getByRole('button')).toHaveCount(left - 1);
});

test('proofing shows before and after, mends what is chosen, and a source then prints right', async ({ page }) => {
  await signIn(page);
  await page.goto('/check/proofing');
  await page.getByRole('button', { name: /^Title in capitals/ }).click();
  const found = page.getByRole('list', { name: 'Title in capitals' });
  await expect(found.getByText('Silt and sluices of the lower creek').first()).toBeVisible();
  const box = found.getByRole('checkbox', { name: /SILT AND SLUICES/ });
  await expect(box).toBeChecked();
  for (const other of await found.getByRole('checkbox').all()) if (await other.isChecked()) await other.uncheck();
  await box.check();
  await page.getByRole('button', { name: 'Mend the chosen one' }).click();
  await expect(notice(page, 'Title in capitals: mended 1 record')).toBeVisible();
  await expect(found.getByText('Silt and sluices of the lower creek')).toHaveCount(0);
  await page.goto('/sources?q=sluices creek');
  await expect(line(page, 'Silt and sluices of the lower creek')).toBeVisible();
});

test('what lies loose is filed together, and its count goes down', async ({ page }) => {
  await signIn(page);
  await page.goto('/check/filing');
  const queue = page.getByRole('button', { name: /^In no collection/ });
  const before = Number((await queue.locator('span').last().textContent())!.replace(',', ''));
  const list = page.getByRole('list', { name: 'In no collection' });
  await list.getByRole('checkbox').nth(0).check();
  await list.getByRole('checkbox').nth(1).check();
  await page.getByRole('button', { name: 'File in…' }).click();
  await page.getByRole('combobox', { name: 'Collection' }).fill('Chapter 2');
  await page.keyboard.press('Enter');
  await expect(queue.locator('span').last()).toHaveText((before - 2).toLocaleString('en'));
});

test('what is meant so is set aside and taken up again; what is left is told in a report', async ({ page }) => {
  await signIn(page);
  await page.goto('/check/proofing');
  const queues = page.getByRole('complementary', { name: 'Queues' });
  const rule = queues.getByRole('button', { name: /^Retracted/ });
  await rule.click();
  await expect(page.getByRole('list', { name: 'Retracted' })).toContainText('RETRACTED: Recovery of the eelgrass beds');
  await page.getByRole('checkbox', { name: /^Choose RETRACTED/ }).check();
  await page.getByRole('button', { name: 'Set the chosen one aside' }).click();
  await expect(notice(page, 'Set aside: Retracted in 1 source')).toBeVisible();
  // It stands below, with what was set aside.
  const aside = queues.getByRole('heading', { name: 'Set aside' }).locator('xpath=following-sibling::ul');
  await aside.getByRole('button', { name: /^Retracted/ }).click();
  await page.getByRole('checkbox', { name: /^Choose RETRACTED/ }).check();
  await page.getByRole('button', { name: 'Take the 1 chosen up again' }).click();
  await expect(aside).toHaveCount(0);

  await page.getByRole('combobox', { name: 'Which sources are proofed' }).selectOption({ label: 'Licensing › Cases' });
  await page.getByRole('link', { name: 'Report to print' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Licensing › Cases' })).toBeVisible();
  await expect(page.getByText(/^Ready for Author-date/)).toBeVisible();
});

test('a finding is asked for, told on the slip and mended there', async ({ page }) => {
  await signIn(page);
  await page.goto('/sources?q=finding:names-swapped');
  await expect(line(page, 'Soundings after the dredging')).toBeVisible();
  const findings = page.getByRole('region', { name: 'Findings' });
  await expect(findings).toContainText('Family and given name swapped');
  await findings.getByRole('button', { name: 'Mend' }).first().click();
  await expect(notice(page, 'Family and given name swapped: mended 1 record')).toBeVisible();
  await expect(line(page, 'Soundings after the dredging')).toHaveCount(0);
  await page.goto('/sources?q=soundings dredging');
  await expect(page.getByTestId('citation')).toContainText('Halvard, J. R.');
});

test('titles are set in another case after a look at each, and a word keeps its form', async ({ page }) => {
  await signIn(page);
  await page.goto('/sources?q=title:handbook title:keeper');
  await page.keyboard.press('Escape');
  await line(page, 'The Keeper’s Handbook of Gates and Tides').click();
  await page.keyboard.press('x');
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox').last().fill('case of titles');
  await page.keyboard.press('Enter');
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('The keeper’s handbook of gates and tides');
  await dialog.getByLabel('A word that keeps its form').fill('Gates');
  await page.keyboard.press('Enter');
  await expect(dialog).toContainText('The keeper’s handbook of Gates and tides');
  await dialog.getByRole('button', { name: 'Change 1 source' }).click();
  await expect(notice(page, 'Sentence case: mended 1 record')).toBeVisible();
  await expect(line(page, 'The keeper’s handbook of Gates and tides')).toBeVisible();
});

test('a loose source is filed by a key as those it is like are', async ({ page }) => {
  await signIn(page);
  await page.goto('/check/filing');
  const queue = page.getByRole('button', { name: /^In no collection/ });
  await queue.click();
  const before = Number((await queue.locator('span').last().textContent())!.replace(',', ''));
  const offers = page.getByRole('list', { name: 'Suggestions' });
  const looked = page.getByRole('list', { name: 'In no collection' }).locator('[aria-current=true]');
  // Not all are like something that stands somewhere: down to one that is. Of each it is told before one goes on.
  const told = looked.getByText('Not similar to any filed or tagged source').or(offers);
  const walk = async (key: string): Promise<void> => {
    await expect(told).toBeVisible();
    const title = await looked.getByRole('link').textContent();
    await page.keyboard.press(key);
    await expect(looked.getByRole('link')).not.toHaveText(title!);
    await expect(told).toBeVisible();
  };
  await walk('ArrowDown');
  await walk('ArrowUp');
  for (let i = 0; i < 30 && !(await offers.getByText(/File in/).count()); i += 1) await walk('ArrowDown');
  const offer = (await offers.getByRole('button').first().textContent())!;
  await page.keyboard.press('1');
  await expect(notice(page, /Filed 1 source in/)).toBeVisible();
  expect(offer).toContain('File in');
  await expect(queue.locator('span').last()).toHaveText((before - 1).toLocaleString('en'));
});
