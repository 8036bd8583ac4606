import { Parser } from 'htmlparser2';

/** Pages nest some dozens deep; one that nests by the thousand is made to break its reader. */
const DEEPEST = 512;

/** Whether elements nest deeper than any page does: such a page is not parsed. */
export function tooDeep(html: string): boolean {
  let depth = 0;
  let deepest = 0;
  const parser = new Parser({
    onopentag: () => void (deepest = Math.max(deepest, (depth += 1))),
    onclosetag: () => void (depth -= 1),
  });
  parser.write(html);
  return deepest > DEEPEST;
}
