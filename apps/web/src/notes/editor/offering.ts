/** What is offered after `@`: notes, headings and sources by what is typed. */
import type { Editor } from '@tiptap/core';
import { PluginKey } from '@tiptap/pm/state';
import Suggestion from '@tiptap/suggestion';
import { shallowReactive } from 'vue';
import { routes } from '@pandecta/contract';
import { HEADING_NAMES } from '@pandecta/core/headings';
import type { Link } from '@pandecta/core/notes';
import { whoOf, withoutMarkup, yearShort } from '@pandecta/core/source';
import { ask } from '../../api/client.ts';
import type { Offered } from '../../kit/offers.ts';

export interface Target extends Offered {
  link: Omit<Link, 'how'>;
}

export interface Offering {
  entries: Target[];
  active: number;
  /** Where it is written, as it moves. */
  at: (() => DOMRect | null) | null;
  take: ((target: Target) => void) | null;
}
export const makeOffering = (): Offering => shallowReactive({ entries: [], active: 0, at: null, take: null });

const MOST = { notes: 6, sources: 5 };

async function targetsFor(q: string): Promise<Target[]> {
  const begun = q.replace(/[^\p{L}\p{N}\s'-]+/gu, ' ').trim(); // prettier-ignore
  if (!begun) return [];
  const words = `${begun}*`;
  const [notes, headings, sources] = await Promise.all([
    ask(routes.notes.list, { body: { q: words, count: MOST.notes, sort: ['-found'] } }),
    ask(routes.headings.offer, { body: { q: begun } }),
    ask(routes.search.page, { query: { q: words, count: MOST.sources } }),
  ]);
  return [
    ...headings.offers.flatMap(({ id, name, kind }): Target[] =>
      id ? [{ key: id, name, hint: HEADING_NAMES[kind].one, link: { to: 'heading', id, label: name } }] : [],
    ),
    ...notes.notes.map(({ id, title }): Target => ({
      key: id,
      name: title,
      hint: 'Note',
      link: { to: 'note', id, label: title },
    })),
    ...sources.rows.map(({ id, record }): Target => {
      const title = withoutMarkup(record.title ?? 'Untitled');
      const label = [whoOf(record), yearShort(record.issued)].filter(Boolean).join(' ') || title;
      return { key: id, name: title, hint: `Source · ${label}`, link: { to: 'source', id, label } };
    }),
  ];
}

export function suggestion(editor: Editor, offering: Offering) {
  return Suggestion<Target>({
    pluginKey: new PluginKey('references'),
    editor,
    char: '@',
    allowSpaces: true,
    items: ({ query }) => targetsFor(query).catch(() => []),
    command: ({ editor: to, range, props }) =>
      to.chain().focus().insertContentAt(range, [{ type: 'reference', attrs: { ...props.link, how: null } }, { type: 'text', text: ' ' }]).run(), // prettier-ignore
    render: () => {
      const show = (p: { items: Target[]; clientRect?: (() => DOMRect | null) | null; command: (t: Target) => void }) =>
        Object.assign(offering, { entries: p.items, active: 0, at: p.clientRect ?? null, take: p.command });
      const hide = (): void => void Object.assign(offering, { entries: [], at: null, take: null });
      return {
        onStart: show,
        onUpdate: show,
        onExit: hide,
        onKeyDown({ event }) {
          const n = offering.entries.length;
          if (event.key === 'Escape') return (hide(), true);
          if (!n) return false;
          if (event.key === 'ArrowDown') offering.active = (offering.active + 1) % n;
          else if (event.key === 'ArrowUp') offering.active = (offering.active + n - 1) % n;
          else if (event.key === 'Enter' || event.key === 'Tab') offering.take?.(offering.entries[offering.active]!);
          else return false;
          return true;
        },
      };
    },
  });
}
