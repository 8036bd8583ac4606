/** Words lit in a text that flows. */

const LIT = 'pandecta-lit';
const SHOWN = 'background: #f1c65b; outline: 2px solid #17645e; color: #1f262d';
const PLAIN = 'background: #fbe7b0; color: #1f262d';

/** Lights every place where one of the words stands, whole; what was lit before is not any more. */
export function lightWords(page: Element, words: readonly string[]): void {
  for (const mark of page.querySelectorAll(`mark.${LIT}`)) {
    const parent = mark.parentNode;
    mark.replaceWith(...mark.childNodes);
    parent?.normalize();
  }
  const sought = [...new Set(words.map((w) => w.trim()).filter(Boolean))].sort((a, b) => b.length - a.length);
  if (!sought.length) return;
  const either = sought.map((w) => w.replace(/[.*+?^${}()|[\]\\]/g, '\\$&').replace(/\s+/g, '\\s+')).join('|');
  const pattern = new RegExp(`(?<![\\p{L}\\p{N}])(?:${either})(?![\\p{L}\\p{N}])`, 'giu');
  const walk = document.createTreeWalker(page, 4 /* NodeFilter.SHOW_TEXT */);
  const texts: Text[] = [];
  while (walk.nextNode()) texts.push(walk.currentNode as Text);
  for (const text of texts) {
    // Where it was seen stands above the page, and is none of its words.
    if (text.parentElement?.closest('script, style, title, p.from')) continue;
    // From the end, so that the places before stay what they are.
    for (const m of [...text.data.matchAll(pattern)].reverse()) {
      const found = text.splitText(m.index);
      found.splitText(m[0].length);
      const mark = document.createElement('mark');
      mark.className = LIT;
      mark.setAttribute('style', PLAIN);
      found.replaceWith(mark);
      mark.append(found);
    }
  }
}

/** Brings one of what is lit into view; after the last comes the first. */
export function showHit(page: Element, at: number): void {
  const marks = [...page.querySelectorAll<HTMLElement>(`mark.${LIT}`)];
  for (const mark of marks) mark.setAttribute('style', PLAIN);
  const shown = marks[at % Math.max(1, marks.length)];
  shown?.setAttribute('style', SHOWN);
  shown?.scrollIntoView?.({ block: 'center' });
}
