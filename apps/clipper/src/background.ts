/** Sends clips, keeps what could not be sent and tries again, and shows on the button what a page holds. */
import { Away, clip, readConnection } from './pandecta.ts';
import { CONNECTION, UNSENT, type Message, type Sent } from './messages.ts';
import type { Clip } from '@pandecta/contract';
import { pdfAt } from './pdf.ts';

const AGAIN = 'send again';

async function send(what: Clip): Promise<Sent> {
  const { [CONNECTION]: text = '' } = await chrome.storage.local.get(CONNECTION);
  const to = readConnection(String(text));
  if (!to) return { refused: 'The clipper has no key yet.' };
  try {
    return { sent: await clip(to, what) };
  } catch (error) {
    if (!(error instanceof Away)) return { refused: (error as Error).message };
    const { [UNSENT]: list = [] } = await chrome.storage.local.get(UNSENT);
    await chrome.storage.local.set({ [UNSENT]: [...(list as Clip[]), what] });
    await chrome.alarms.create(AGAIN, { delayInMinutes: 0.5, periodInMinutes: 1 });
    return { kept: error.message };
  }
}

/** With the PDF the page links, as whoever is signed in there may have it. A page is sent without it rather than not. */
async function sendWith(what: Clip, address?: string): Promise<Sent> {
  const pdf = address ? await pdfAt(address) : undefined;
  const done = await send({ ...what, ...(pdf && { pdf }) });
  return address && !pdf && 'sent' in done ? { ...done, without: 'Its PDF could not be fetched.' } : done;
}

/** What could not be sent goes in the order it was clipped; the first that fails again ends it for now. */
async function sendAgain(): Promise<void> {
  for (;;) {
    const { [UNSENT]: list = [] } = await chrome.storage.local.get(UNSENT);
    const [first, ...rest] = list as Clip[];
    if (!first) return void (await chrome.alarms.clear(AGAIN));
    await chrome.storage.local.set({ [UNSENT]: rest });
    const done = await send(first);
    // Kept again: it stands at the end, and nobody answers just now.
    if ('kept' in done) return;
  }
}

chrome.alarms.onAlarm.addListener(({ name }) => name === AGAIN && void sendAgain());
chrome.runtime.onStartup.addListener(() => void sendAgain());
chrome.runtime.onMessage.addListener((message: Message, sender, answer) => {
  if (message.say === 'glance') {
    const { stamp, items } = message.glance;
    const tabId = sender.tab?.id;
    if (tabId !== undefined) {
      void chrome.action.setBadgeText({ tabId, text: items.length ? String(items.length) : stamp });
      void chrome.action.setBadgeBackgroundColor({ tabId, color: '#17645e' });
    }
    return false;
  }
  if (message.say === 'unsent') {
    void sendAgain().then(() => answer({}));
    return true;
  }
  void sendWith(message.clip, message.pdf).then(answer);
  return true;
});
