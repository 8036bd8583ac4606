import { latexToText } from '../../formats/latex/decode.ts';
import { decodeEntities } from '../../repair/index.ts';
import { inTexts, short, type Rule } from '../rule.ts';

/** CSL knows i, b, sup, sub and small capitals (CSL-JSON, "HTML-like formatting tags"). */
const OWN = /^<(?:\/?(?:i|b|sup|sub)|span (?:style="font-variant:\s?small-caps;?"|class="nocase")|\/span)>$/i;
const TAG = /<\/?[a-z][a-z0-9:]*(?:\s+[\w:-]+=(?:"[^"]*"|'[^']*'))*\s*\/?>/gi;
/** HTML's and JATS's names for what CSL names otherwise. */
const NAMES: Record<string, string> = { em: 'i', 'jats:italic': 'i', italic: 'i', strong: 'b', 'jats:bold': 'b', bold: 'b', 'jats:sup': 'sup', 'jats:sub': 'sub' }; // prettier-ignore

/** Tags CSL knows stay, those it has another name for are renamed, all others go. */
const ownTags = (text: string): string =>
  text
    .replace(/^\s*<(em|strong)>((?:(?!<\/?\1>).)*)<\/\1>\s*$/is, '$2')
    .replace(TAG, (tag) => {
      if (OWN.test(tag)) return tag;
      const own = NAMES[tag.replace(/[</>]/g, '').trim().toLowerCase()];
      return own ? `<${tag.startsWith('</') ? '/' : ''}${own}>` : '';
    })
    .trim();
const LATEX = /\\[a-zA-Z'"`^~=.]+|\{[^{}]*\}|\$[^$]+\$/;

export const markup: Rule = {
  id: 'markup',
  severity: 'looks wrong',
  title: 'Entities, tags or LaTeX left over',
  why: 'They would be printed as they stand.',
  find: ({ record }) =>
    inTexts(
      record,
      (text) => {
        const decoded = decodeEntities(text);
        const tagged = decoded.includes('<') ? ownTags(decoded) : decoded;
        return LATEX.test(tagged) ? latexToText(tagged) : tagged;
      },
      (before) => `“${short(before)}” has signs of another format in it`,
      0.95,
    ),
};
