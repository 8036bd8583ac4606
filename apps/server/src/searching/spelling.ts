/** Close spellings: the words there are that differ by a letter or two from what is asked for. */
import { sql } from 'drizzle-orm';
import type { Node } from '@pandecta/core/query';
import { tokens } from '@pandecta/core/words';
import type { Db } from '../database/connect.ts';
import { rows, text } from '../database/read.ts';

/** A word of so many letters, and one longer, may differ by one letter and by two (common practice). */
const SHORT = 5;
const MOST = 50;

/** The tree, with each word of which close spellings are asked for knowing those there are. */
export async function spellOut(db: Db, workspaceId: string, node: Node): Promise<Node> {
  switch (node.is) {
    case 'and':
    case 'or': {
      const parts = await Promise.all(node.parts.map((p) => spellOut(db, workspaceId, p)));
      return parts.every((p, i) => p === node.parts[i]) ? node : { ...node, parts };
    }
    case 'not': {
      const part = await spellOut(db, workspaceId, node.part);
      return part === node.part ? node : { ...node, part };
    }
    case 'near': {
      const [left, right] = await Promise.all([node.left, node.right].map((p) => spellOut(db, workspaceId, p)));
      return left === node.left && right === node.right ? node : ({ ...node, left, right } as Node);
    }
    case 'word': {
      const last = tokens(node.text).at(-1);
      return node.close && last ? { ...node, spelt: await closeTo(db, workspaceId, last.stem) } : node;
    }
    default:
      return node;
  }
}

/** The closest first: by Levenshtein's distance (Soviet Physics Doklady 10, 1966), as PostgreSQL's fuzzystrmatch counts it. */
async function closeTo(db: Db, workspaceId: string, stem: string): Promise<string[]> {
  const most = stem.length <= SHORT ? 1 : 2;
  if (stem.length > 40) return [];
  const found = await rows(
    db,
    { word: text() },
    sql`select word from index_words where workspace_id = ${workspaceId}
        and char_length(word) between ${stem.length - most} and ${stem.length + most} and word <> ${stem}
        and levenshtein_less_equal(word, ${stem}, ${most}) <= ${most}
      order by levenshtein_less_equal(word, ${stem}, ${most}), word limit ${MOST}`,
  );
  return found.map((f) => f.word);
}
