/**
 * A question in the language of the ask line, over notes: words and phrases stand in the note itself, `about:` and `tag:` are its
 * own, and every other field is one of the sources it speaks of.
 */
import { sql, type SQL } from 'drizzle-orm';
import { parseQuery, printQuery, type FieldNode, type Node, type WordNode } from '@pandecta/core/query';
import { fold, stemsBegunBy, tokens } from '@pandecta/core/words';
import type { Acting } from '../access/principal.ts';
import { prefixOf } from '../database/lexemes.ts';
import { array } from '../database/sql.ts';
import { countedHeadings } from '../headings/store.ts';
import { chosenIds } from '../searching/chosen.ts';
import type { Services } from '../services.ts';

const quoted = (lexeme: string): string => `'${lexeme.replaceAll("'", "''")}'`;
const NEVER = sql`false`;

/** The condition on notes `n` for a question, and the words to rank them by, as a tsquery. */
export async function compileNotes(
  services: Services,
  caller: Acting,
  question: string,
): Promise<{ condition: SQL; rank: string }> {
  const lead = prefixOf(caller.workspace.number);
  const w = caller.actor.workspaceId;

  const stems = (text: string): string[] => tokens(text).map((t) => quoted(lead + t.stem));
  const word = ({ text, prefix, close }: WordNode): string => {
    const all = stems(text);
    if (!all.length || (!prefix && !close)) return all.join(' & ');
    const begun = [...stemsBegunBy(text)].map((s) => quoted(lead + s));
    return `(${[...all, ...begun, `${quoted(lead + fold(text))}:*`].join(' | ')})`;
  };
  const ranked: string[] = [];
  const has = (query: string): SQL => {
    if (!query) return sql`true`;
    ranked.push(`(${query})`);
    return sql`n.vector @@ ${query}::tsquery`;
  };

  const ofSources = async (node: FieldNode): Promise<SQL> => {
    const ids = await chosenIds(services, caller, { matching: { q: printQuery(node) } });
    return ids.length
      ? sql`n.id in (select note_id from note_sources where workspace_id = ${w} and source_id = any(${array(ids, 'uuid')}))`
      : NEVER;
  };
  const named = (name: SQL, { text, phrase }: FieldNode): SQL =>
    phrase ? sql`lower(${name}) = ${text.toLowerCase()}` : sql`lower(${name}) like ${`%${text.toLowerCase().replace(/[\\%_]/g, '\\$&')}%`}`; // prettier-ignore

  const field = (node: FieldNode): SQL | Promise<SQL> => {
    if (node.field === 'about')
      return sql`n.about && array(select h.id from (${countedHeadings(w)}) h join entries e on e.workspace_id = ${w} and e.list = 'heading' and e.id = h.counts
        where ${named(sql`(e.value->>'name')`, node)} or exists (select 1 from jsonb_array_elements_text(e.value->'others') o where ${named(sql`o`, node)}))`;
    if (node.field === 'tag')
      return sql`n.tags && array(select id from tags where workspace_id = ${w} and not subject and ${named(sql`name`, node)})`; // prettier-ignore
    if (node.field === 'note') return has(stems(node.text).join(node.phrase ? ' <-> ' : ' & '));
    return ofSources(node);
  };

  const compile = async (node: Node): Promise<SQL> => {
    switch (node.is) {
      case 'all':
        return sql`true`;
      case 'and':
      case 'or': {
        const parts = await Promise.all(node.parts.map(compile));
        return sql`(${sql.join(parts, node.is === 'and' ? sql` and ` : sql` or `)})`;
      }
      case 'not':
        return sql`not ${await compile(node.part)}`;
      case 'word':
        return has(word(node));
      case 'phrase':
        return has(stems(node.text).join(' <-> '));
      case 'near': {
        const [a, b] = [stems(node.left.text).join(' <-> '), stems(node.right.text).join(' <-> ')];
        if (!a || !b) return NEVER;
        const apart = Array.from({ length: node.within }, (_, i) => i + 1);
        const ways = node.ordered ? [[a, b]] : [[a, b], [b, a]]; // prettier-ignore
        return has(ways.flatMap(([x, y]) => apart.map((n) => `((${x}) <${n}> (${y}))`)).join(' | '));
      }
      case 'field':
        return field(node);
    }
  };
  return { condition: await compile(parseQuery(question).tree), rank: ranked.join(' | ') };
}
