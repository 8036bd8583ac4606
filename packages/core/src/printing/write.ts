/** A bibliography as a file that any word processor, browser or editor opens. */
import { runsOf, type Run } from './runs.ts';

export interface Printed {
  /** One entry each, as HTML with only inline elements. */
  entries: { html: string; text: string }[];
  /** Lines after the first of an entry stand further in. */
  hangingIndent: boolean;
}

export const PRINT_FORMATS = ['docx', 'rtf', 'html', 'markdown', 'text'] as const;
export type PrintFormat = (typeof PRINT_FORMATS)[number];

export const PRINT_INFO: Record<PrintFormat, { name: string; extension: string; mediaType: string }> = {
  docx: {
    name: 'Word processor (DOCX)',
    extension: 'docx',
    mediaType: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
  },
  rtf: { name: 'Rich text (RTF)', extension: 'rtf', mediaType: 'application/rtf' },
  html: { name: 'Web page (HTML)', extension: 'html', mediaType: 'text/html' },
  markdown: { name: 'Markdown', extension: 'md', mediaType: 'text/markdown' },
  text: { name: 'Plain text', extension: 'txt', mediaType: 'text/plain' },
};

type Written = Exclude<PrintFormat, 'docx'>;

export const writePrinted = (printed: Printed, format: Written): string => WRITERS[format](printed);

const WRITERS: Record<Written, (printed: Printed) => string> = {
  text: ({ entries }) => entries.map((e) => `${e.text}\n`).join('\n'),
  markdown: ({ entries }) => entries.map((e) => `${runsOf(e.html).map(markdown).join('')}\n`).join('\n'),
  html: ({ entries, hangingIndent }) =>
    [
      '<!doctype html>',
      '<html><head><meta charset="utf-8"><title>Bibliography</title>',
      `<style>body{font-family:serif;max-width:42em;margin:2em auto;line-height:1.4}p{margin:0 0 .6em${hangingIndent ? ';padding-left:2em;text-indent:-2em' : ''}}</style>`,
      '</head><body>',
      ...entries.map((e) => `<p>${e.html}</p>`),
      '</body></html>',
      '',
    ].join('\n'),
  rtf: ({ entries, hangingIndent }) =>
    [
      '{\\rtf1\\ansi\\deff0\\uc1{\\fonttbl{\\f0\\froman Times New Roman;}}\\f0\\fs24',
      ...entries.map(
        (e) => `{\\pard${hangingIndent ? '\\li720\\fi-720' : ''}\\sa120 ${runsOf(e.html).map(rtf).join('')}\\par}`,
      ),
      '}',
      '',
    ].join('\n'),
};

/** Signs that mean something in Markdown stand for themselves (CommonMark 0.31, 2.4). */
const plainly = (text: string): string =>
  text
    .replace(/[\\`*_[\]<>~^]/g, '\\$&')
    .replace(/^([#+-])(?=\s)/, '\\$1')
    .replace(/^(\d+)([.)])(?=\s)/, '$1\\$2');

function markdown({ text, italic, bold, raised, lowered }: Run): string {
  const words = text.trim();
  if (!words) return text;
  const at = text.indexOf(words);
  const [before, after] = [text.slice(0, at), text.slice(at + words.length)];
  let out = plainly(words);
  if (raised) out = `^${out.replaceAll(' ', '\\ ')}^`;
  if (lowered) out = `~${out.replaceAll(' ', '\\ ')}~`;
  if (italic) out = `*${out}*`;
  if (bold) out = `**${out}**`;
  return before + out + after;
}

/** RTF 1.9.1: control words; characters beyond ASCII as \uN, followed by the "?" that readers without Unicode show. */
function rtf({ text, ...look }: Run): string {
  const words = [
    look.italic && '\\i',
    look.bold && '\\b',
    look.underline && '\\ul',
    look.smallCaps && '\\scaps',
    look.raised && '\\super',
    look.lowered && '\\sub',
  ].filter(Boolean);
  const escaped = text.replace(/[\\{}]/g, '\\$&').replace(/[^\x20-\x7e]/g, (c) => {
    const unit = c.charCodeAt(0);
    // The blank ends the control word; without it some readers take the next letter along.
    return `\\u${unit > 0x7fff ? unit - 0x10000 : unit} ?`;
  });
  return words.length ? `{${words.join('')} ${escaped}}` : escaped;
}
