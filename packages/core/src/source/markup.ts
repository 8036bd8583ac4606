/** The markup a value may hold: <i>, <b>, <sup>, <sub>, <sc> and <span> (CSL 1.0.2 input data, “HTML-like formatting”). */
const MARKUP = /<\/?(?:i|b|sup|sub|sc|span)(?:\s[^<>]*)?>/gi;

/** The text without its markup; other angle brackets are text and stay. */
export const withoutMarkup = (text: string): string => text.replace(MARKUP, '');
