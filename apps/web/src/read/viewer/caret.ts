/**
 * Choosing words by the keyboard. An arrow chooses the next word, Shift with an arrow as many as one wants; the choice
 * is the page's own selection, so all that works on words selected with the pointer works on these.
 */
export type Arrow = 'ArrowLeft' | 'ArrowRight' | 'ArrowUp' | 'ArrowDown';

interface Word {
  node: Text;
  start: number;
  end: number;
}

interface Box {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

const rangeOf = (word: Word): Range => {
  const range = document.createRange();
  range.setStart(word.node, word.start);
  range.setEnd(word.node, word.end);
  return range;
};
const boxOf = (word: Word): Box => rangeOf(word).getBoundingClientRect();

/** The words of a page's layer of text, in reading order. */
function wordsOf(layer: Element): Word[] {
  const out: Word[] = [];
  const walker = document.createTreeWalker(layer, NodeFilter.SHOW_TEXT);
  for (let node = walker.nextNode() as Text | null; node; node = walker.nextNode() as Text | null)
    for (const m of node.data.matchAll(/\S+/g)) out.push({ node, start: m.index, end: m.index + m[0].length });
  return out;
}

/**
 * Moves the choice in the pages of `desk`; the first press chooses the first word in sight.
 * @returns the element of the word last chosen, to be brought into sight; undefined when there is nothing to choose
 */
export function chooseWord(desk: HTMLElement, arrow: Arrow, extend: boolean): HTMLElement | undefined {
  const words = [...desk.querySelectorAll('.textLayer')].flatMap(wordsOf);
  if (!words.length) return undefined;
  const selection = getSelection()!;
  const at = indexOf(words, selection.focusNode, selection.focusOffset);
  const next = at < 0 ? firstInSight(words, desk) : step(words, at, arrow);
  const anchor = extend && at >= 0 ? indexOf(words, selection.anchorNode, selection.anchorOffset) : next;
  const [from, to] = [words[anchor]!, words[next]!];
  // The anchor's word and the last one are both in, whichever way one went.
  if (anchor <= next) selection.setBaseAndExtent(from.node, from.start, to.node, to.end);
  else selection.setBaseAndExtent(from.node, from.end, to.node, to.start);
  return to.node.parentElement ?? undefined;
}

/** The word that holds the place, or ends at it; -1 when it is in none. */
function indexOf(words: Word[], node: Node | null, offset: number): number {
  return words.findIndex((w) => w.node === node && w.start <= offset && offset <= w.end);
}

function firstInSight(words: Word[], desk: HTMLElement): number {
  const { top } = desk.getBoundingClientRect();
  const found = words.findIndex((w) => boxOf(w).top >= top);
  return found < 0 ? 0 : found;
}

function step(words: Word[], at: number, arrow: Arrow): number {
  if (arrow === 'ArrowRight') return Math.min(words.length - 1, at + 1);
  if (arrow === 'ArrowLeft') return Math.max(0, at - 1);
  return onNextLine(words, at, arrow === 'ArrowDown' ? 1 : -1);
}

/** The word of the next line that stands nearest below or above. */
function onNextLine(words: Word[], at: number, way: 1 | -1): number {
  const here = boxOf(words[at]!);
  const middle = (here.left + here.right) / 2;
  let line: Box | undefined;
  let best = at;
  let nearest = Infinity;
  for (let i = at + way; i >= 0 && i < words.length; i += way) {
    const box = boxOf(words[i]!);
    const beyond = way > 0 ? box.top >= (here.top + here.bottom) / 2 : box.bottom <= (here.top + here.bottom) / 2;
    if (!beyond) continue;
    line ??= box;
    if (Math.abs(box.top - line.top) > (line.bottom - line.top) / 2) break;
    const away = Math.abs((box.left + box.right) / 2 - middle);
    if (away < nearest) [nearest, best] = [away, i];
  }
  return best;
}
