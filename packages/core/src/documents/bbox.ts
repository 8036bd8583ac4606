/**
 * Reads what `pdftotext -bbox-layout` prints (poppler): pages, flows, blocks, lines and words with their boxes, in
 * points. It is read as it arrives; pages come out whole.
 */
import { characterOf } from '../text/index.ts';
import { boundsOf, median, type Page, type PageLine, type PageWord } from './page.ts';

export class BboxReader {
  private rest = '';
  private page: Page | undefined;
  private number = 0;
  private line: { from: number; words: PageWord[] } | undefined;
  private newBlock = false;

  /** Takes the next part of the output and returns the pages that are complete. */
  push(chunk: string): Page[] {
    const text = this.rest + chunk;
    const whole = text.lastIndexOf('\n') + 1;
    this.rest = text.slice(whole);
    const done: Page[] = [];
    // From one "<" to the next: a pattern over the whole would cost three times as much.
    for (let at = text.indexOf('<'); at >= 0 && at < whole; at = text.indexOf('<', at)) {
      const close = text.startsWith('<word', at) ? text.indexOf('</word>', at) : text.indexOf('>', at);
      if (close < 0) break;
      if (text.startsWith('<word', at)) this.word(text.slice(at, close));
      else if (text.startsWith('<line', at)) this.line = { from: this.page?.text.length ?? 0, words: [] };
      else if (text.startsWith('</line', at)) this.endLine();
      else if (text.startsWith('<block', at)) this.newBlock = true;
      else if (text.startsWith('<page', at)) this.startPage(text.slice(at, close));
      else if (text.startsWith('</page', at) && this.page) {
        done.push(this.page);
        this.page = undefined;
      }
      at = close + 1;
    }
    return done;
  }

  private startPage(attributes: string): void {
    this.number += 1;
    this.page = {
      number: this.number,
      width: number(attributes, 'width'),
      height: number(attributes, 'height'),
      text: '',
      words: [],
      lines: [],
    };
    this.newBlock = false;
  }

  /** `<word xMin="72.0" yMin="71.2" xMax="99.3" yMax="83.1">gate`, without its end. */
  private word(element: string): void {
    const page = this.page;
    const v = element.split('"', 8);
    const text = clean(unescape(element.slice(element.indexOf('>') + 1)));
    if (!page || !this.line || !text) return;
    if (!this.line.words.length) this.lead(page, text);
    else page.text += ' ';
    const start = page.text.length;
    page.text += text;
    const w: PageWord = { start, end: page.text.length, box: { x0: +v[1]!, y0: +v[3]!, x1: +v[5]!, y1: +v[7]! } };
    if (!this.line.words.length) this.line.from = start;
    this.line.words.push(w);
    page.words.push(w);
  }

  /** What parts a line from the one before: a word broken by a hyphen is joined, a block begins a paragraph. */
  private lead(page: Page, first: string): void {
    const broken = /\p{L}[-\u00AD‐]$/u.test(page.text) && /^\p{Ll}/u.test(first);
    if (!page.text) return;
    if (broken) {
      page.text = page.text.slice(0, -1);
      const last = page.words.at(-1);
      if (last) last.end -= 1;
    } else page.text += this.newBlock ? '\n\n' : '\n';
    this.newBlock = false;
  }

  private endLine(): void {
    const words = this.line?.words ?? [];
    if (words.length && this.page) {
      const line: PageLine = {
        text: this.page.text.slice(this.line!.from),
        words,
        size: median(words.map((w) => w.box.y1 - w.box.y0)),
        box: boundsOf(words),
      };
      this.page.lines.push(line);
    }
    this.line = undefined;
    this.newBlock = false;
  }
}

function number(attributes: string, name: string): number {
  return Number(new RegExp(`${name}="([^"]*)"`).exec(attributes)?.[1] ?? 0);
}

const LIGATURES: Record<string, string> = { ﬀ: 'ff', ﬁ: 'fi', ﬂ: 'fl', ﬃ: 'ffi', ﬄ: 'ffl', ﬅ: 'st', ﬆ: 'st' };

/** Accents that old fonts set as signs of their own, before the letter they stand over. */
const SET_BEFORE: Record<string, string> = {
  '´': '\u0301',
  '¨': '\u0308',
  ˆ: '\u0302',
  '˜': '\u0303',
  ˇ: '\u030C',
  '˚': '\u030A',
};

/** Ligatures apart, accents on their letters and control characters away: what a person would type to find the word. */
function clean(text: string): string {
  if (!/[\u0000-\u001f\u00A8\u00B4\u02C6\u02C7\u02DA\u02DC\uFB00-\uFB06\uFFFD]|\p{M}/u.test(text)) return text;
  return text
    .replace(/[ﬀ-ﬆ]/g, (c) => LIGATURES[c]!)
    .replace(/[\u0000-\u001f\uFFFD]/g, '')
    .replace(/([´¨ˆ˜ˇ˚])(\p{L})/gu, (_, accent: string, letter: string) => letter + SET_BEFORE[accent]!)
    .replace(/ı(?=\p{M})/gu, 'i')
    .normalize('NFC');
}

function unescape(text: string): string {
  if (!text.includes('&')) return text;
  return text.replace(
    /&(amp|lt|gt|quot|apos|#\d+);/g,
    (_, name: string) =>
      ({ amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" })[name] ?? characterOf(Number(name.slice(1))),
  );
}
