/** A person in front of the page: signs in, drops files, reads what stands there. */
import { expect, type Locator, type Page } from '@playwright/test';
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';

export const PASSWORD = 'low-water-1872';

/** Signs in and opens the sources. Through the form it is done by `signInByForm`. */
export async function signIn(page: Page, who: 'marit' | 'ines' | 'tobias' = 'marit'): Promise<void> {
  const reply = await page.request.post('/api/session', {
    data: { email: `${who}@sallow.example`, password: PASSWORD },
  });
  expect(reply.ok()).toBe(true);
  await page.goto('/');
  await expect(ledger(page)).toBeVisible();
}

export async function signInByForm(page: Page, who: 'marit' | 'ines' | 'tobias' = 'marit'): Promise<void> {
  await page.goto('/');
  await page.getByLabel('E-mail address').fill(`${who}@sallow.example`);
  await page.getByLabel('Password').fill(PASSWORD);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(ledger(page)).toBeVisible();
}

/** Lets files fall on the page, as from the desktop. */
export async function drop(page: Page, files: { name: string; content: string | Uint8Array }[]): Promise<void> {
  const plain = files.map((f) => ({ name: f.name, base64: Buffer.from(f.content).toString('base64') }));
  const transfer = await page.evaluateHandle((list) => {
    const data = new DataTransfer();
    for (const f of list) data.items.add(new File([Uint8Array.from(atob(f.base64), (c) => c.charCodeAt(0))], f.name));
    return data;
  }, plain);
  await page.dispatchEvent('body', 'dragover', { dataTransfer: transfer });
  await expect(page.getByText('Drop to bring them in')).toBeVisible();
  await page.dispatchEvent('body', 'drop', { dataTransfer: transfer });
}

/** Lets a document fall on the page and takes in what it became. */
export async function dropDocument(page: Page, name: string, content: Uint8Array): Promise<void> {
  await drop(page, [{ name, content }]);
  const report = page.getByRole('region', { name: 'Report' });
  await expect(report.getByRole('row', { name: new RegExp(name) })).toContainText('In the intake');
  await report.getByRole('link', { name: 'Go through the intake' }).click();
  await expect(page.getByRole('complementary', { name: 'Chosen' })).toContainText('New: nothing here is like it');
  await page.getByRole('listbox', { name: 'What waits' }).focus();
  await page.keyboard.press('i');
  await expect(notice(page, 'Took in 1 source')).toBeVisible();
}

/** Asks, and waits until the answer stands there. */
export async function ask(page: Page, text: string): Promise<void> {
  const answered = page.waitForResponse(
    (r) => new URL(r.url()).searchParams.get('q') === text && r.url().includes('/sources?'),
  );
  await page.getByRole('combobox', { name: 'Ask' }).fill(text);
  await answered;
  // The list of an answer without sources gives way to words that say so.
  await expect(page.getByRole('listbox', { name: 'Sources', includeHidden: true })).toHaveAttribute(
    'aria-busy',
    'false',
  );
}

export const ledger = (page: Page): Locator => page.getByRole('listbox', { name: 'Sources' });
export const line = (page: Page, title: string | RegExp): Locator =>
  ledger(page).getByRole('option').filter({ hasText: title });
export const slip = (page: Page): Locator => page.getByRole('region', { name: 'Slip', exact: true });
export const notice = (page: Page, text: string | RegExp): Locator =>
  page.getByRole('status').filter({ hasText: text });

/** An entry of the menu “More” of the document that is read; one that does not open something leaves the menu there. */
export async function more(page: Page, entry: string): Promise<void> {
  await page.getByRole('button', { name: 'More about the document' }).click();
  await page.getByRole('menuitem', { name: entry }).click();
  if (!entry.endsWith('…')) await page.keyboard.press('Escape');
}

export async function makePdf(pages: string[][]): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.TimesRoman);
  for (const lines of pages) {
    const page = doc.addPage([420, 600]);
    lines.forEach((text, i) => page.drawText(text, { x: 40, y: 520 - i * 26, size: i === 0 ? 18 : 11, font }));
  }
  return doc.save();
}
