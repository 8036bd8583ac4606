/** Reads the pages of a document in a worker, and hands them over in shares, each when the one before was taken. */
import type { MessagePort } from 'node:worker_threads';
import { packWords, type Page } from '@pandecta/core/documents';
import { NumberReader, type NumbersInText } from '@pandecta/core/page-numbers';
import { withoutNul } from '@pandecta/core/text';
import { Lexemes } from '@pandecta/core/words';
import { pdfPages } from '@pandecta/debian/poppler';

const PAGES_AT_ONCE = 40;
/** By the first pages the work is recognised. */
const FRONT = 3;

export interface ReadPagesTask {
  path: string;
  /** What the lexemes of the workspace begin with. */
  lead: string;
  port: MessagePort;
}

/** A page as it is stored. */
export interface StoredPage {
  number: number;
  width: number;
  height: number;
  text: string;
  words: Uint8Array;
  vector: string;
}

export interface ReadPages extends NumbersInText {
  count: number;
  letters: number;
  front: Page[];
}

/** Whoever takes the shares answers each with a message; closing the port stops the reading. */
export async function readPages({ path, lead, port }: ReadPagesTask): Promise<ReadPages> {
  const out: ReadPages = { count: 0, letters: 0, front: [], printed: [], paragraphs: [] };
  const numbers = new NumberReader();
  let closed = false;
  let go = (): void => {};
  port.on('message', () => go());
  port.on('close', () => ((closed = true), go()));
  let share: StoredPage[] = [];
  let taken: Promise<unknown> = Promise.resolve();
  const hand = async (): Promise<void> => {
    if (!share.length) return;
    // The next is read while this one is written.
    await taken;
    if (closed) return;
    taken = new Promise<void>((resolve) => (go = resolve));
    port.postMessage(share);
    share = [];
  };
  for await (const page of pdfPages(path)) {
    if (closed) return out;
    if (out.front.length < FRONT) out.front.push(page);
    out.count += 1;
    numbers.take(page);
    out.letters += page.text.length;
    const words = new Lexemes();
    words.add(lead, page.text);
    const { number, width, height, text } = page;
    share.push({
      number,
      width,
      height,
      text: withoutNul(text),
      words: packWords(page.words),
      vector: words.toString(),
    });
    if (share.length >= PAGES_AT_ONCE) await hand();
  }
  Object.assign(out, numbers.read());
  await hand();
  await taken;
  port.close();
  return out;
}
