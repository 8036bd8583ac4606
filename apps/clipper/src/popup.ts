/** What the button opens: one click sends the page; before that one may choose items, where they go, and leave a note. */
import type { Clipped, PlacesReply } from '@pandecta/contract';
import { CONNECTION, UNSENT, type Glance, type Sent } from './messages.ts';
import { holder, places, readConnection, type Connection } from './pandecta.ts';

interface Page {
  address: string;
  /** None where the browser shows a PDF. */
  html?: string;
  glance: Glance;
}
const at = <E extends HTMLElement>(id: string): E => document.getElementById(id) as E;
const say = (text: string, bad = false): void => {
  at('says').textContent = text;
  at('says').className = bad ? 'bad' : '';
};
const show = (id: string, on: boolean): void => void (at(id).hidden = !on);
const chosen = new Set<string>();
/** In characters of base64, as Pandecta takes it. */
const MOST_PICTURE = 5_500_000;

/** The collections by their paths: "Licensing › Chapter 2". */
function paths({ collections, placements }: PlacesReply): { id: string; path: string }[] {
  const names = new Map(collections.map((c) => [c.id, c.name]));
  const out: { id: string; path: string }[] = [];
  const walk = (parent: string | null, lead: string, above: string[]): void => {
    for (const p of placements.filter((x) => (x.parent ?? null) === parent && !above.includes(x.collection))) {
      const path = lead ? `${lead} › ${names.get(p.collection)}` : String(names.get(p.collection));
      out.push({ id: p.collection, path });
      walk(p.collection, path, [...above, p.collection]);
    }
  };
  walk(null, '', []);
  return out;
}

function offer(list: { id: string; path: string }[]): void {
  const words = at<HTMLInputElement>('find').value.toLowerCase().split(/\s+/);
  at('collections').replaceChildren(
    ...list
      .filter((c) => chosen.has(c.id) || words.every((w) => c.path.toLowerCase().includes(w)))
      .slice(0, 40)
      .map((c) => checkbox(c.path, chosen.has(c.id), (on) => void (on ? chosen.add(c.id) : chosen.delete(c.id)))),
  );
}

function checkbox(text: string, checked: boolean, change: (on: boolean) => void): HTMLElement {
  const label = document.createElement('label');
  const box = document.createElement('input');
  box.type = 'checkbox';
  box.checked = checked;
  box.onchange = () => change(box.checked);
  label.append(box, ` ${text}`);
  return label;
}

async function begin(): Promise<void> {
  const { [CONNECTION]: text = '', [UNSENT]: unsent = [] } = await chrome.storage.local.get([CONNECTION, UNSENT]);
  const to = readConnection(String(text));
  show('connect', !to);
  show('clip', Boolean(to));
  if (!to) return;
  if ((unsent as unknown[]).length) {
    say(`${(unsent as unknown[]).length} not sent yet; trying again.`);
    void chrome.runtime.sendMessage({ say: 'unsent' });
  }
  await ready(to);
}

/** A page that was open before the clipper was there is looked at now. */
async function pageOf(tabId: number): Promise<Page> {
  const asked = (): Promise<Page> => chrome.tabs.sendMessage<unknown, Page>(tabId, { say: 'page' });
  return asked().catch(async () => {
    await chrome.scripting.executeScript({ target: { tabId }, files: ['look.js'] });
    return asked();
  });
}

/** A PDF the browser shows by itself is asked for by its address. */
async function shownPdf(tabId: number): Promise<Page | undefined> {
  const { url = '' } = await chrome.tabs.get(tabId);
  if (!/^https?:/.test(url)) return undefined;
  const response = await fetch(url, { method: 'HEAD', credentials: 'include' }).catch(() => undefined);
  const isPdf = /application\/pdf/i.test(response?.headers.get('content-type') ?? '') || /\.pdf(?:\?|#|$)/i.test(url);
  return isPdf ? { address: url, glance: { stamp: 'Do', items: [], pdf: url } } : undefined;
}

/** How the page looks, where it is in view: a JPEG in base64. */
async function pictureOf(tabId: number): Promise<string | undefined> {
  try {
    const tab = await chrome.tabs.get(tabId);
    if (!tab.active) return undefined;
    const data = await chrome.tabs.captureVisibleTab(tab.windowId, { format: 'jpeg', quality: 80 });
    const base64 = data.slice(data.indexOf(',') + 1);
    return base64.length <= MOST_PICTURE ? base64 : undefined;
  } catch {
    return undefined;
  }
}

function inWords({ sent, without }: { sent: Clipped; without?: string }): string {
  const missing = sent.missing.charAt(0).toUpperCase() + sent.missing.slice(1);
  return [`In the intake: “${sent.title}”${missing ? `. ${missing}.` : '.'}`, without].filter(Boolean).join(' ');
}

async function ready(to: Connection): Promise<void> {
  const [tab] = await chrome.tabs.query({ active: true, currentWindow: true });
  // In tests the page is named, since the popup stands in a tab of its own.
  const named = Number(new URLSearchParams(location.search).get('tab'));
  const id = named || tab?.id;
  const page = id ? await pageOf(id).catch(() => shownPdf(id)) : undefined;
  if (!page) {
    say('This page cannot be clipped: it is one of the browser’s own.', true);
    at<HTMLButtonElement>('send').disabled = true;
    return;
  }
  const items = new Set<number>();
  at('title').textContent = page.glance.items.length
    ? `${page.glance.items.length} works on this page`
    : (page.html && new DOMParser().parseFromString(page.html, 'text/html').title) || page.address;
  at('items').replaceChildren(
    ...page.glance.items.map((title, i) => checkbox(title, false, (on) => void (on ? items.add(i) : items.delete(i)))),
  );
  show('full-text', Boolean(page.html && page.glance.pdf));
  void Promise.all([places(to), holder(to)])
    .then(([reply, { name, workspace }]) => {
      at('whose').textContent = `${workspace}, as ${name}`;
      const list = paths(reply);
      at('find').oninput = () => offer(list);
      offer(list);
    })
    .catch((error: Error) => say(error.message, true));
  at('send').onclick = async () => {
    at<HTMLButtonElement>('send').disabled = true;
    say('Sending…');
    const tags = at<HTMLInputElement>('tags')
      .value.split(',')
      .map((t) => t.trim())
      .filter(Boolean);
    const note = at<HTMLInputElement>('note').value.trim();
    const picture = page.html && !items.size ? await pictureOf(id!) : undefined;
    const pdf = page.html && (items.size || !at<HTMLInputElement>('with-pdf').checked) ? undefined : page.glance.pdf;
    const done = (await chrome.runtime.sendMessage({
      say: 'send',
      ...(pdf && { pdf }),
      clip: {
        address: page.address,
        ...(page.html && { html: page.html }),
        ...(picture && { picture }),
        ...(items.size && { items: [...items] }),
        destination: { collections: [...chosen], tags, reading: null, ...(note && { note }) },
      },
    })) as Sent;
    at<HTMLButtonElement>('send').disabled = false;
    if ('sent' in done) say(inWords(done));
    else if ('kept' in done) say(done.kept, true);
    else say(done.refused, true);
  };
}

at('save').onclick = async () => {
  const text = at<HTMLInputElement>('key').value;
  const to = readConnection(text);
  if (!to) return say('This is no key: copy the whole line from Pandecta.', true);
  try {
    const { name, workspace } = await holder(to);
    await chrome.storage.local.set({ [CONNECTION]: text.trim() });
    say(`Connected to ${workspace}, as ${name}.`);
    await begin();
  } catch (error) {
    say((error as Error).message, true);
  }
};
at('forget').onclick = async () => {
  await chrome.storage.local.remove(CONNECTION);
  say('The key is forgotten.');
  await begin();
};
// A form that is sent would lead away from the page one clips.
for (const form of document.forms) form.addEventListener('submit', (event) => event.preventDefault());
void begin();
