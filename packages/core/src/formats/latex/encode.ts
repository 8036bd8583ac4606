/** Text to LaTeX: what a field value needs so that it reads back as it is. */
import { mathToText } from './math.ts';

const ESCAPES: Record<string, string> = {
  '\\': '\\textbackslash{}',
  '{': '\\textbraceleft{}',
  '}': '\\textbraceright{}',
  $: '\\$',
  '&': '\\&',
  '%': '\\%',
  '#': '\\#',
  _: '\\_',
  '~': '\\textasciitilde{}',
  '^': '\\textasciicircum{}',
  '\u00A0': '~',
};

/** Encodes text for a field: special characters escaped, inline tags as commands, mathematics it keeps left alone. */
export function textToLatex(text: string): string {
  return text
    .split(/(\$[^$]*\$|<\/?(?:i|b|sup|sub)>)/)
    .map((part) => {
      if (isMath(part)) return part;
      const tag = /^<(\/?)(i|b|sup|sub)>$/.exec(part);
      if (tag)
        return tag[1]
          ? '}'
          : { i: '\\emph{', b: '\\textbf{', sup: '\\textsuperscript{', sub: '\\textsubscript{' }[tag[2]!]!;
      return part.replace(/[\\{}$&%#_~^\u00A0]/g, (c) => ESCAPES[c]!);
    })
    .join('');
}

/** Whether a piece between dollars is TeX that the reader keeps as it is; two prices are none. */
function isMath(part: string): boolean {
  return /^\$[^$]*(?:\\[A-Za-z]|[_^])[^$]*\$$/.test(part) && mathToText(part.slice(1, -1)) === undefined;
}

/**
 * Puts braces around words that must keep their capitals when a style writes titles in sentence case: in a title
 * set in title case, words with a capital after their first letter; in one set in sentence case, every capital word
 * but the first.
 */
export function protectCapitals(latex: string): string {
  const words = (latex.match(/\p{L}{4,}/gu) ?? []).slice(1);
  // Too few words to tell: what the author wrote is kept.
  const titleCase = words.length > 2 && words.filter((w) => /^\p{Lu}/u.test(w)).length > words.length / 2;
  return latex.replace(
    /(^|[\s(“‘:–—-])(?!\\)(\p{L}[\p{L}\p{N}'’.]*)/gu,
    (whole, before: string, word: string, at: number) => {
      const rest = titleCase || (at === 0 && before === '') ? word.slice(1) : word;
      return /\p{Lu}/u.test(rest) ? `${before}{${word}}` : whole;
    },
  );
}
