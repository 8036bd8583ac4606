/** Further ways in: tables, gatherings that rest, addresses that are watched; and what came of searches. */
import { expect, test } from './world.ts';
import { ask, drop, line, makePdf, notice, signIn } from './person.ts';

test.beforeEach(async ({ page }) => signIn(page));

test('of a table one says what its columns hold, sees how its rows then read, and is not asked to guess again', async ({
  page,
}) => {
  const table = 'Werk,Verfasser,Wann\nThe reed cutters’ almanac,"Weir, Ada; Marsh, Tom",1931\n';
  await drop(page, [{ name: 'list.csv', content: table }]);
  const dialog = page.getByRole('dialog', { name: 'What the columns hold' });
  await expect(dialog.getByText('No column is the title: say which one is.')).toBeVisible();
  await dialog.getByLabel('What “Werk” is').selectOption('Title');
  await dialog.getByLabel('What “Verfasser” is').selectOption('Author');
  await dialog.getByLabel('What “Wann” is').selectOption('Date');
  await expect(dialog.getByText('Weir and Marsh · 1931')).toBeVisible();
  await dialog.getByRole('button', { name: 'Bring in' }).click();
  await expect(page.getByRole('row', { name: /list\.csv/ })).toContainText('1 source new');
  await page.getByRole('link', { name: /^Sources/ }).click();
  await ask(page, 'author:"Tom Marsh"');
  await expect(line(page, 'The reed cutters’ almanac')).toBeVisible();
  await drop(page, [{ name: 'again.csv', content: table.replace('almanac', 'calendar') }]);
  await expect(dialog.getByLabel('What “Werk” is')).toHaveValue('title');
  await page.keyboard.press('Escape');
  await expect(dialog).toHaveCount(0);
});

test('a gathering rests, is still there after a reload, and goes on', async ({ page }) => {
  test.slow();
  const files = await Promise.all(
    Array.from({ length: 30 }, async (_, n) => ({
      name: `leaf ${n}.pdf`,
      content: await makePdf(
        Array.from({ length: 20 }, (_x, i) => [`Harbour book ${n}, leaf ${i}`, 'Wind from the west.']),
      ),
    })),
  );
  await drop(page, files);
  const report = page.getByRole('region', { name: 'Report' });
  await report.getByRole('button', { name: 'Pause' }).click();
  await expect(report.getByText('Paused.')).toBeVisible();
  await page.reload();
  await expect(report.getByText('Paused.')).toBeVisible();
  await report.getByRole('button', { name: 'Go on' }).click();
  await expect(report.getByRole('row', { name: /leaf 29\.pdf/ })).toContainText(/intake/i, { timeout: 60_000 });
});

test('a feed is looked at, then watched; what it has goes to the intake, once', async ({ page }) => {
  await page.getByRole('link', { name: /^Gather/ }).click();
  await page.getByRole('button', { name: 'Watch an address…' }).click();
  const dialog = page.getByRole('dialog', { name: 'Watch an address' });
  await dialog.getByLabel('Address').fill('http://catalogues.sallow.example/northmere/new.atom');
  await dialog.getByRole('button', { name: 'Look' }).click();
  await expect(dialog.getByText(/^15 works, the first “/)).toBeVisible();
  await dialog.getByLabel('Name of the watch').fill('New at Northmere');
  await dialog.getByRole('checkbox', { name: 'E-mail me when there is something new' }).check();
  await dialog.getByRole('button', { name: 'Watch' }).click();
  const deeds = page.getByRole('button', { name: 'What to do with the watch New at Northmere' });
  for (const says of ['15 new', '0 new']) {
    await deeds.click();
    await page.getByRole('menuitem', { name: 'Run now' }).click();
    await expect(
      page.getByRole('listitem').filter({ hasText: 'New at Northmere' }).filter({ has: deeds }),
    ).toContainText(says);
  }
  await expect(page.getByRole('listbox', { name: 'What waits' }).getByRole('option')).not.toHaveCount(0);
});

test('the log tells what came of the searches that are counted, in a picture, in words and as a table', async ({
  page,
}) => {
  await page.goto('/gather/log');
  const log = page.getByRole('region', { name: 'Log of searches' });
  const flow = log.getByRole('table', { name: 'What became of what was found' });
  await expect(log.getByText(/records found.*; \d+ duplicates? removed; \d+ works screened/)).toBeVisible();
  const screened = flow.getByRole('row', { name: /Works screened/ });
  const before = await screened.textContent();
  await log.getByRole('checkbox', { name: 'Count “larval drift”' }).uncheck();
  await expect(screened).not.toHaveText(before!);
  const download = page.waitForEvent('download');
  await log.getByRole('button', { name: 'Save as a table' }).click();
  expect((await download).suggestedFilename()).toBe('searches.csv');
  await log.getByRole('button', { name: 'Copy the numbers' }).click();
  await expect(notice(page, 'The numbers are copied')).toBeVisible();
});
