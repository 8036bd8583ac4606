/** An entry of a bibliography as runs of text, each with how it looks: from the inline HTML the processor writes. */
import { Parser } from 'htmlparser2';

export interface Run {
  text: string;
  italic?: true;
  bold?: true;
  underline?: true;
  smallCaps?: true;
  raised?: true;
  lowered?: true;
}
type Look = Omit<Run, 'text'>;

const OF_TAG: Record<string, Look> = {
  i: { italic: true },
  em: { italic: true },
  b: { bold: true },
  strong: { bold: true },
  u: { underline: true },
  sup: { raised: true },
  sub: { lowered: true },
};

function lookOf(tag: string, { style = '' }: Record<string, string>): Look {
  return {
    ...OF_TAG[tag],
    ...(/font-variant:\s*small-caps/.test(style) && { smallCaps: true }),
    ...(/text-decoration:\s*underline/.test(style) && { underline: true }),
  };
}

/** @param html inline elements only; others are passed over with their text kept */
export function runsOf(html: string): Run[] {
  const runs: Run[] = [];
  const open: Look[] = [{}];
  const parser = new Parser({
    onopentag(tag, attributes) {
      // What is upright again within italics is told by the processor as a span.
      const upright = /font-style:\s*normal/.test(attributes.style ?? '');
      const { italic, ...rest } = open.at(-1)!;
      open.push({ ...(upright ? rest : { ...rest, ...(italic && { italic }) }), ...lookOf(tag, attributes) });
    },
    onclosetag: () => void open.pop(),
    ontext(text) {
      const look = open.at(-1) ?? {};
      const last = runs.at(-1);
      if (last && sameLook(last, look)) last.text += text;
      else runs.push({ text, ...look });
    },
  });
  parser.end(html);
  return runs;
}

const LOOKS = ['italic', 'bold', 'underline', 'smallCaps', 'raised', 'lowered'] as const;
const sameLook = (a: Look, b: Look): boolean => LOOKS.every((l) => a[l] === b[l]);
