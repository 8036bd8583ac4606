/** Pages with the place of every word as hOCR 1.2, the open format of recognised text. */
import type { Rect } from '../marks/index.ts';
import { NOT_KNOWN } from './confidence.ts';
import { linesOf, lineText, type PageText } from './lines.ts';

export interface HocrPage extends PageText {
  number: number;
  /** In points. */
  width: number;
  height: number;
  /** In percent, a byte for each word; missing where the file had its words, or none is known any more. */
  confidence?: Uint8Array | null;
}

/** Places in hOCR are whole dots: ten a point keep them as exact as they are stored. */
const DOTS = 10;
const boxOf = ({ x0, y0, x1, y1 }: Rect): string =>
  `bbox ${[x0, y0, x1, y1].map((v) => Math.round(v * DOTS)).join(' ')}`;
const SIGNS: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
/** Control characters have no place in XML (1.0, 2.2). */
const escaped = (text: string): string =>
  text.replace(/[^\t\n\r -\uFFFF\u{10000}-\u{10FFFF}]/gu, '').replace(/[&<>"]/g, (c) => SIGNS[c]!);

/** @param title of the document @param language a tag of BCP 47, where it is known */
export function hocr(pages: readonly HocrPage[], title: string, language?: string): string {
  return `<?xml version="1.0" encoding="UTF-8"?>
<!DOCTYPE html>
<html xmlns="http://www.w3.org/1999/xhtml"${language ? ` lang="${escaped(language)}"` : ''}>
<head>
<title>${escaped(title)}</title>
<meta charset="utf-8"/>
<meta name="ocr-system" content="pandecta"/>
<meta name="ocr-capabilities" content="ocr_page ocr_line ocrx_word ocrp_wconf"/>
</head>
<body>
${pages.map(page).join('\n')}
</body>
</html>
`;
}

function page(of: HocrPage): string {
  const lines = linesOf(of);
  // One confidence is known for each word as it was recognised; where lines were corrected there may be more or fewer words.
  const known = of.confidence?.length === of.words.length ? of.confidence : undefined;
  let word = 0;
  const written = lines.map((line, i) => {
    const last = line.words.length - 1;
    // The hyphen that was taken out of a broken word stands at the end of its line again.
    const hyphen =
      lineText(of.text, lines, i).endsWith('-') && !of.text.slice(line.start, line.end).endsWith('-') ? '-' : '';
    const words = line.words.map((w, k) => {
      const confidence = known?.[word + k];
      const sure = confidence === undefined || confidence === NOT_KNOWN ? '' : `; x_wconf ${confidence}`;
      const text = of.text.slice(w.start, w.end) + (k === last ? hyphen : '');
      return `<span class="ocrx_word" id="word_${of.number}_${word + k + 1}" title="${boxOf(w.box)}${sure}">${escaped(text)}</span>`;
    });
    word += line.words.length;
    return `<span class="ocr_line" id="line_${of.number}_${i + 1}" title="${boxOf(line.box)}">${words.join(' ')}</span>`;
  });
  const whole = boxOf({ x0: 0, y0: 0, x1: of.width, y1: of.height });
  return `<div class="ocr_page" id="page_${of.number}" title="${whole}; ppageno ${of.number - 1}; scan_res 720 720">\n${written.join('\n')}\n</div>`;
}
