import { expect, test } from './world.ts';
import { ask, drop, ledger, line, makePdf, notice, signInByForm, slip } from './person.ts';

const RIS =
  'TY  - JOUR\nTI  - The Gatekeeper’s Ledger Reconsidered\nAU  - Brackwater, Anton\nAU  - Samphire, Leila\nJO  - Harbour History\nVL  - 31\nIS  - 2\nSP  - 44\nEP  - 61\nPY  - 2019\nDO  - 10.5555/harbhist.2019.0044\nKW  - Archives\nER  - \n';

test('from a file to a found, filed, read and cited source', async ({ page }) => {
  await signInByForm(page);

  await test.step('drop one RIS file and one PDF; the PDF finds its record', async () => {
    const pdf = await makePdf([
      ['The Gatekeeper’s Ledger Reconsidered'.replace('’', "'"), 'doi:10.5555/harbhist.2019.0044'],
      ['The second leaf', 'Every kittiwake closure was entered twice by the gatekeeper.'],
    ]);
    await drop(page, [
      { name: 'harbour.ris', content: RIS },
      { name: 'scan_0001.pdf', content: pdf },
    ]);
    await expect(page.getByRole('heading', { name: 'harbour.ris and 1 more' })).toBeVisible();
    const files = page.getByRole('table', { name: 'Files' });
    await expect(files.getByRole('row', { name: /harbour\.ris/ })).toContainText('1 source new');
    await expect(
      files.getByText(/Attached to “The Gatekeeper’s Ledger Reconsidered” \(2 pages\): same DOI/),
    ).toBeVisible();
  });

  await test.step('find it by words on its second page, lit', async () => {
    await page.getByRole('link', { name: 'Sources', exact: false }).first().click();
    await ask(page, '"kittiwake closures"');
    await expect(line(page, 'Gatekeeper’s Ledger')).toBeVisible();
    await expect(line(page, 'Gatekeeper’s Ledger').locator('mark')).toHaveText('kittiwake closure');
    await expect(line(page, 'Gatekeeper’s Ledger')).toContainText('p. 2');
  });

  await test.step('file it with the keyboard', async () => {
    await ledger(page).focus();
    await page.keyboard.press('f');
    await page.getByRole('combobox', { name: 'Name of a collection' }).fill('chapter 2');
    await page.getByRole('option', { name: /Chapter 2/ }).click();
    await expect(notice(page, 'Filed 1 source in Chapter 2')).toBeVisible();
    await expect(slip(page).getByRole('link', { name: 'Licensing › Chapter 2' })).toBeVisible();
  });

  await test.step('read it at that page, mark a sentence, write a gloss', async () => {
    await ledger(page).focus();
    await page.keyboard.press('Enter');
    const leaf = page.getByRole('region', { name: 'Page 2' });
    const sentence = leaf.getByText('Every kittiwake closure was entered twice by the gatekeeper.');
    await expect(sentence).toBeVisible();
    await expect(page.getByText('1 of 1')).toBeVisible();
    await sentence.selectText();
    await page.keyboard.press('2');
    await page
      .getByRole('textbox', { name: /^Gloss on “Every kittiwake/ })
      .fill('Double entry: compare the cormorant book.');
    await page.keyboard.press('Control+Enter');
    await expect(notice(page, 'Changed a gloss')).toBeVisible();
    await page.reload();
    await expect(page.getByText('Double entry: compare the cormorant book.')).toBeVisible();
    await expect(page.getByText('Evidence 1')).toBeVisible();
  });

  await test.step('find it by the gloss, and copy the citation as rich and plain text', async () => {
    await page.getByRole('link', { name: /^Sources/ }).click();
    await ask(page, 'cormorant');
    await expect(line(page, 'Gatekeeper’s Ledger')).toBeVisible();
    await expect(slip(page).getByTestId('citation')).toContainText(
      'Brackwater, Anton, and Leila Samphire. 2019. “The Gatekeeper’s Ledger Reconsidered.” Harbour History 31 (2): 44–61.',
    );
    await ledger(page).focus();
    await page.keyboard.press('c');
    await expect(notice(page, /^Copied/)).toBeVisible();
    const copied = await page.evaluate(async () => {
      const [item] = await navigator.clipboard.read();
      return {
        html: await (await item!.getType('text/html')).text(),
        text: await (await item!.getType('text/plain')).text(),
      };
    });
    expect(copied.text).toMatch(/^Brackwater, Anton, and Leila Samphire\. 2019\./);
    expect(copied.html).toContain('<i>Harbour History</i>');
  });

  await test.step('undo the import: everything it brought is gone, and comes back', async () => {
    await page.getByRole('link', { name: /^Gather/ }).click();
    await page.getByRole('link', { name: /harbour\.ris and 1 more/ }).click();
    await page.getByRole('button', { name: 'Undo this import' }).click();
    await expect(page.getByText('This import is undone')).toBeVisible();
    await page.keyboard.press('Control+Shift+z');
    await expect(page.getByRole('button', { name: 'Undo this import' })).toBeVisible();
  });
});
