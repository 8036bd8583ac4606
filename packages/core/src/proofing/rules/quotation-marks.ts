import { inTexts, short, type Rule } from '../rule.ts';

const GERMAN = /[„‚]([^“”„‚‘’]*)[“”‘’]/g;
const GUILLEMETS = /[«»]([^«»]*)[«»]/g;
const ENGLISH = /^en/i;
const OTHERS = /\b(?:der|die|das|und|für|les?|des|du|et|une?|della?|degli|och|och|nad|nie|и)\b/iu;

export const quotationMarks: Rule = {
  id: 'quotation-marks',
  severity: 'looks wrong',
  title: 'Quotation marks of another language',
  why: 'Among the marks the style sets in the language one writes in they look like slips.',
  find: ({ record }) =>
    inTexts(
      record,
      (text, field) => {
        if (field !== 'title' && field !== 'container-title') return text;
        if (!/[„‚«»]/.test(text)) return text;
        // A title in its own language keeps its own marks.
        if (record.language ? !ENGLISH.test(record.language) : OTHERS.test(text)) return text;
        return text.replace(GERMAN, '“$1”').replace(GUILLEMETS, (_, within: string) => `“${within.trim()}”`);
      },
      (before) => `“${short(before)}” has quotation marks English does not use`,
      record.language ? 0.92 : 0.7,
    ),
};
