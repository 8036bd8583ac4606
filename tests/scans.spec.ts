import { expect, test, type Page } from './world.ts';
import { ask, ledger, line, more, signIn, slip } from './person.ts';

test.beforeEach(({ page }) => signIn(page));

/** A sheet of paper with words on it, as a picture. */
async function picture(page: Page, words: string, wide = 620, high = 820): Promise<Buffer> {
  const made = await page.evaluate(
    ([text, width, height]) => {
      const canvas = document.createElement('canvas');
      [canvas.width, canvas.height] = [Number(width), Number(height)];
      const pen = canvas.getContext('2d')!;
      pen.fillStyle = 'white';
      pen.fillRect(0, 0, canvas.width, canvas.height);
      pen.fillStyle = 'black';
      pen.font = '28px serif';
      for (let i = 0; i < 6; i += 1) pen.fillText(String(text), 60, 120 + i * 60);
      return canvas.toDataURL('image/png');
    },
    [words, String(wide), String(high)],
  );
  return Buffer.from(made.split(',')[1]!, 'base64');
}
const read = async (page: Page, question: string, title: RegExp): Promise<void> => {
  await page.goto('/sources');
  await ask(page, question);
  await line(page, title).click();
  await ledger(page).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: /^Page/ }).first()).toBeVisible();
};

test('pictures become one document in the order and turn one gives them, and its words are found', async ({ page }) => {
  await page.goto('/sources');
  await ask(page, 'title:"Letters to the Harbour Commission"');
  await line(page, /Letters to the Harbour Commission, January/).click();
  await slip(page).getByRole('button', { name: '+ pictures' }).click();
  const sheet = page.getByRole('dialog', { name: 'Pictures as one document' });
  await sheet.getByLabel('Pictures of pages').setInputFiles([
    { name: 'leaf 10.png', mimeType: 'image/png', buffer: await picture(page, 'The quincunx of elms was felled') },
    { name: 'leaf 2.png', mimeType: 'image/png', buffer: await picture(page, 'A zeppelin lay over the marsh') },
  ]);
  const leaves = sheet.getByRole('listitem');
  await expect(leaves.first()).toContainText('leaf 2.png');
  await sheet.getByRole('button', { name: 'Page 1 later' }).click();
  await expect(leaves.first()).toContainText('leaf 10.png');
  await sheet.getByRole('button', { name: 'Cut page 2' }).click();
  await sheet.getByLabel('Bottom, %').fill('30');
  await sheet.getByRole('button', { name: 'Done' }).click();
  await sheet.getByLabel('Name of the document').fill('Loose leaves');
  await sheet.getByRole('button', { name: 'Make the document of 2 pages' }).click();
  await expect(sheet).toBeHidden();
  await expect(slip(page).getByRole('button', { name: 'Loose leaves.pdf' }).first()).toBeVisible({ timeout: 60_000 });
  await ask(page, 'quincunx');
  await expect(line(page, /Letters to the Harbour Commission, January/)).toBeVisible();
});

test('the text of a scan is recognised anew from the document, and the way back is undo', async ({ page }) => {
  await read(page, 'title:"Letter of" file:"folder-4-02"', /^.*Letter of/);
  await more(page, 'Recognise the text anew…');
  const sheet = page.getByRole('dialog', { name: 'Recognise the text anew' });
  await expect(sheet.getByRole('checkbox', { name: 'English' })).toBeChecked();
  await sheet.getByRole('button', { name: 'Recognise anew' }).click();
  await expect(sheet).toBeHidden();
  await expect(page.getByText(/Recognised the text of .* anew/).first()).toBeVisible({ timeout: 60_000 });
});

test('the archives are listed by box and folder, with what was scanned', async ({ page }) => {
  await page.goto('/sources/archives');
  await expect(page.getByRole('heading', { name: 'Archives' })).toBeVisible();
  await page.getByRole('button', { name: /^Box 9/ }).click();
  await page.getByRole('button', { name: /^Folder 3/ }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'Letters to the Harbour Commission' })).toContainText('40 pages'); // prettier-ignore
});
