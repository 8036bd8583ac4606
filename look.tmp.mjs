import { chromium } from 'playwright-core';
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
});
export async function person(who) {
  const ctx = await browser.newContext({ viewport: { width: 1280, height: 800 }, baseURL: 'http://127.0.0.1:4800' });
  const page = await ctx.newPage();
  page.on('console', (m) => m.type() === 'error' && console.log(who, m.text()));
  page.on('pageerror', (e) => console.log(who, 'ERR', e.message));
  await page.goto('/');
  await page.getByLabel('E-mail address').fill(`${who}@sallow.example`);
  await page.getByLabel('Password').fill('low-water-1872');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByRole('listbox', { name: 'Sources' }).waitFor();
  return page;
}
export { browser };
