/** Loads headings, notes and outlines: some written for the scenario, others of the marks members made. */
import { sql } from 'drizzle-orm';
import type { OutlineNode } from '@pandecta/contract';
import type { Access, Acting } from '../apps/server/src/access/principal.ts';
import { rows, text } from '../apps/server/src/database/read.ts';
import { makeHeading } from '../apps/server/src/headings/service.ts';
import { makeOutline } from '../apps/server/src/notes/outlines.ts';
import { makeNote } from '../apps/server/src/notes/service.ts';
import type { Services } from '../apps/server/src/services.ts';
import { paragraph, type DocNode } from '@pandecta/core/notes';
import { HEADINGS, NOTES, OUTLINES, THEMES } from './scenario/notes.ts';
import { Chance } from './scenario/random.ts';
import { SOURCES } from './scenario/sources.ts';

const WANTED = 100;

/** @param users the inquiry's members, the first of whom owns what is one's own */
export async function writeNotes(services: Services, caller: Acting, users: string[]): Promise<void> {
  const { actor } = caller;
  const chance = new Chance(1871);
  const headings = new Map<string, string>();
  for (const { under, ...heading } of HEADINGS) {
    const { id } = await makeHeading(services, caller, { ...heading, ...(under && { parent: headings.get(under)! }) });
    headings.set(heading.name, id!);
  }
  const idsOf = (names: string[]): string[] => names.map((n) => headings.get(n)!);
  const as = (n: number): Access => ({ ...actor, userId: users[n % 2]! });
  const made = new Map<string, string>();
  for (const [i, { title, says, about, link, own, ...note }] of NOTES.entries()) {
    const to = link && made.get(link[0]);
    const reference: DocNode[] = to
      ? [{ type: 'paragraph', content: [{ type: 'text', text: 'Compare ' }, { type: 'reference', attrs: { to: 'note', id: to, label: link[0], how: link[1] } }, { type: 'text', text: '.' }] }] // prettier-ignore
      : [];
    const input = {
      ...note,
      title,
      about: idsOf(about),
      text: { type: 'doc', content: [...says.map(paragraph), ...reference] },
      ...(own && { personal: true }),
    };
    const { id } = await makeNote(services, own ? actor : as(i), input);
    made.set(title, id!);
  }
  const marked = await rows(
    services.db,
    { id: text(), title: text(), source: text(), quote: text() },
    sql`select m.id, s.record->>'title' as title, s.id as source, m.quote->>'exact' as quote from marks m join sources s on s.workspace_id = m.workspace_id and s.id = m.source_id
      where m.workspace_id = ${actor.workspaceId} and m.present and m.owner is null and m.quote->>'exact' <> '' order by m.id`,
  );
  const some = marked.filter((_, i) => i % 3 === 0).slice(0, WANTED - NOTES.length);
  for (const [i, mark] of some.entries()) {
    const theme = THEMES[SOURCES.find((s) => s.record.title === mark.title)?.theme ?? 'operators']!;
    const others = marked.filter((m) => m.source === mark.source && m.id !== mark.id);
    const about = [chance.pick(theme.about), chance.pick(theme.about)];
    const [first, last] = theme.years ?? [1900, 2000];
    const year = first + Math.floor(((i * 37) % 100) * ((last - first) / 100));
    const [shown] = about;
    const event = chance.pick([String(year), `spring ${year}`, `${year}-0${1 + (i % 9)}`, `${year}/${year + 3}`, null]);
    await makeNote(services, as(i), {
      title: `${shown![0]!.toUpperCase()}${shown!.slice(1)}: ${mark.quote.split(' ').slice(0, 7).join(' ')}…`,
      marks: [mark.id, ...(i % 5 === 0 ? others.slice(0, 2).map((m) => m.id) : [])],
      text: { type: 'doc', content: [paragraph(chance.pick(theme.adds))] },
      about: idsOf([...new Set(about)]),
      ...(event && { event }),
      ...(i % 7 === 0 && { tags: ['used'] }),
    });
  }
  for (const { name, parts } of OUTLINES) {
    const nodes = parts.map(({ title, notes }): OutlineNode => ({
      note: null,
      title,
      used: false,
      children: notes.map((n, i) => ({ note: made.get(n)!, title: '', used: i % 3 === 0, children: [] })),
    }));
    await makeOutline(services, caller, { name, nodes });
  }
}
