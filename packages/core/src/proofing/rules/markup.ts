import { decodeEntities, plainText } from '../../repair/index.ts';
import { inTexts, short, type Rule } from '../rule.ts';

/** CSL knows i, b, sup, sub and small capitals (CSL-JSON, "HTML-like formatting tags"). */
const OWN = /<\/?(?:i|b|sup|sub)>|<span (?:style="font-variant:\s?small-caps;?"|class="nocase")>|<\/span>/gi;
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
        const foreign = /<\/?[a-z][^>]*>/i.test(decoded.replace(OWN, ''));
        return foreign || LATEX.test(decoded) ? plainText(decoded) : decoded;
      },
      (before) => `“${short(before)}” has signs of another format in it`,
      0.95,
    ),
};
