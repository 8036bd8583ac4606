import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { chromium, type BrowserContext } from '@playwright/test';
import { CHROMIUM } from './chromium.ts';
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import { expect, test, type Page } from './world.ts';
import { line, notice, signIn, slip } from './person.ts';

const EXTENSION = fileURLToPath(new URL('../dist/clipper/chromium', import.meta.url));
const PAGE = `<!doctype html><html><head><title>Edges – a page</title>
<meta name="citation_title" content="Edges of the marsh under the clipper"><meta name="citation_author" content="Halvard, Runa">
<meta name="citation_journal_title" content="Coastal Processes"><meta name="citation_publication_date" content="1999">
<meta name="citation_pdf_url" content="/edges.pdf"></head>
<body><h1>Edges</h1><script>document.body.append('Half a character, as some pages leave it: \\ud83d')</script></body></html>`;
const LIST = `<!doctype html><html><head><title>Results</title></head><body>${[
  'One work of the list',
  'Another work of the list',
  'A third work of it',
]
  .map(
    (t) =>
      `<span class="Z3988" title="rft_val_fmt=info%3Aofi%2Ffmt%3Akev%3Amtx%3Ajournal&amp;rft.atitle=${encodeURIComponent(t)}&amp;rft.jtitle=Coastal+Processes&amp;rft.date=2001"></span>`,
  )
  .join('')}</body></html>`;

let site: Server;
let context: BrowserContext;
let folder: string;
let address: string;

test.beforeAll(async () => {
  const doc = await PDFDocument.create();
  doc.addPage([300, 300]).drawText('Edges', { x: 20, y: 200, font: await doc.embedFont(StandardFonts.Helvetica) });
  const pdf = Buffer.from(await doc.save());
  site = createServer((request, response) => {
    if (request.url !== '/edges.pdf')
      return response
        .writeHead(200, { 'content-type': 'text/html', 'set-cookie': 'reader=signed-in; Path=/' })
        .end(request.url === '/list' ? LIST : PAGE);
    // Whoever is signed in there may have it; a server that asks for itself may not.
    if (!request.headers.cookie?.includes('reader=signed-in')) return response.writeHead(403).end('Sign in first.');
    return response.writeHead(200, { 'content-type': 'application/pdf' }).end(pdf);
  });
  await new Promise<void>((done) => site.listen(0, '127.0.0.1', done));
  address = `http://127.0.0.1:${(site.address() as AddressInfo).port}`;
  folder = mkdtempSync(join(tmpdir(), 'pandecta-clipper-'));
  context = await chromium.launchPersistentContext(folder, {
    executablePath: CHROMIUM.executablePath,
    args: [...CHROMIUM.args, `--disable-extensions-except=${EXTENSION}`, `--load-extension=${EXTENSION}`],
  });
});
test.afterAll(async () => {
  await context.close();
  site.close();
  rmSync(folder, { recursive: true, force: true });
});

/** What the button of the clipper opens over a page. */
async function clipperOver(path: string, front = false): Promise<Page> {
  const worker = context.serviceWorkers()[0] ?? (await context.waitForEvent('serviceworker'));
  const page = await context.newPage();
  await page.goto(address + path);
  const tab = await worker.evaluate(async (url) => {
    const { tabs } = (
      globalThis as unknown as { chrome: { tabs: { query(q: object): Promise<{ id: number; url: string }[]> } } }
    ).chrome;
    return (await tabs.query({})).find((t) => t.url === url)!.id;
  }, address + path);
  const popup = await context.newPage();
  await popup.goto(`chrome-extension://${new URL(worker.url()).host}/popup.html?tab=${tab}`);
  // As in use, where the popup stands over the page.
  if (front) await page.bringToFront();
  return popup;
}

test('a page and works of a list are brought in from the browser by a key, which can be revoked', async ({
  page,
  baseURL,
}) => {
  await signIn(page);
  await page.goto('/gather');
  await page.getByRole('button', { name: /^From the browser/ }).click();
  await page.getByRole('textbox', { name: 'Name of the new key' }).fill('laptop');
  await page.getByRole('button', { name: 'Make a key' }).click();
  const key = await page.getByRole('textbox', { name: 'The key' }).inputValue();
  expect(key.startsWith(`${baseURL}/w/`)).toBe(true);

  const popup = await clipperOver('/page', true);
  await popup.getByRole('textbox', { name: 'Key' }).fill(key);
  await popup.getByRole('button', { name: 'Connect' }).click();
  await expect(popup.getByText('Sallow Estuary Inquiry, as Marit Okonjo', { exact: true })).toBeVisible();
  await popup.getByRole('textbox', { name: 'Where it goes' }).fill('chapter 2');
  await popup.getByRole('checkbox', { name: 'Licensing › Chapter 2' }).check();
  await popup.getByRole('textbox', { name: 'Tags, with commas between' }).fill('clipped');
  await expect(popup.getByRole('checkbox', { name: 'With the PDF it links' })).toBeChecked();
  await popup.getByRole('button', { name: 'Bring it in' }).click();
  await expect(popup.getByRole('status')).toHaveText(
    'In the intake: “Edges of the marsh under the clipper”. Volume and pages missing.',
  );

  const list = await clipperOver('/list');
  await expect(list.getByRole('heading')).toHaveText('3 works on this page');
  await list.getByRole('checkbox', { name: 'One work of the list' }).check();
  await list.getByRole('checkbox', { name: 'A third work of it' }).check();
  await list.getByRole('button', { name: 'Bring it in' }).click();
  await expect(list.getByRole('status')).toHaveText(/^In the intake: “2 from/);

  await page.goto('/gather');
  const waiting = page.getByRole('listbox', { name: 'What waits' });
  for (const title of ['One work of the list', 'A third work of it'])
    await expect(waiting.getByRole('option', { name: title })).toBeVisible();
  await expect(waiting.getByRole('option', { name: 'Another work of the list' })).toHaveCount(0);
  await waiting.getByRole('option', { name: /Edges of the marsh/ }).click();
  const chosen = page.getByRole('complementary', { name: 'Chosen' });
  await expect(chosen.getByText('Licensing › Chapter 2')).toBeVisible();
  await expect(chosen.getByText('clipped')).toBeVisible();
  await expect(chosen.getByText('Stated on the page, 95 % sure')).toBeVisible();
  await expect(chosen.getByText('It leads to a PDF')).toHaveCount(0);
  await page.getByRole('button', { name: 'Take in', exact: true }).click();
  await page.goto('/sources?q=title:"under the clipper"');
  await line(page, /Edges of the marsh/).click();
  for (const end of ['pdf', 'html', 'jpg'])
    await expect(
      slip(page).getByRole('button', { name: `Edges of the marsh under the clipper.${end}`, exact: true }),
    ).toBeVisible();
  await slip(page)
    .getByRole('button', { name: /^Edges.*clipper\.jpg$/ })
    .click();
  await expect(page.getByRole('img', { name: 'Edges of the marsh under the clipper.jpg' })).toBeVisible();
  await page.goto('/gather');

  await page.getByRole('button', { name: /^From the browser/ }).click();
  await page.getByRole('button', { name: 'Revoke', exact: true }).click();
  await page.getByRole('button', { name: 'Revoke it' }).click();
  await expect(page.getByText('No key yet.')).toBeVisible();
  await list.getByRole('button', { name: 'Bring it in' }).click();
  await expect(list.getByRole('status')).toHaveText(/This key opens nothing here/);
  await expect(notice(page, /error/i)).toHaveCount(0);
});

test('what cannot be sent is kept by the clipper, and says so', async ({ page }) => {
  await signIn(page);
  const popup = await clipperOver('/page');
  await popup.evaluate(async () => {
    const { storage } = (
      globalThis as unknown as {
        chrome: { storage: { local: { set(v: object): Promise<void>; get(k: string): Promise<object> } } };
      }
    ).chrome;
    // Nobody listens there.
    await storage.local.set({
      connection: 'http://127.0.0.1:9/w/018f0000-0000-7000-8000-000000000000#aaaaaaaaaaaaaaaaaaaaaaaa',
    });
  });
  await popup.reload();
  await popup.getByRole('button', { name: 'Bring it in' }).click();
  await expect(popup.getByRole('status')).toHaveText(
    'Pandecta does not answer. It is kept here and sent when it does.',
  );
  await popup.reload();
  await expect(popup.getByRole('status')).toContainText(/not sent yet; trying again|does not answer/);
});
