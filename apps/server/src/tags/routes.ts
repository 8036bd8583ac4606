/** Tags: suggestions as one types, and putting them on sources. */
import { Changed, SuggestQuery, TagList, TagSources } from '@pandecta/contract';
import { answer } from '../changes/commit.ts';
import { commit } from '../changes/service.ts';
import { Refusal } from '../errors.ts';
import type { Declare } from '../http/route.ts';
import type { Services } from '../services.ts';
import { ensureTags, suggestTags } from './store.ts';

export function tagRoutes(declare: Declare, services: Services): void {
  declare({
    method: 'GET',
    path: '/w/:workspace/tags',
    may: 'read',
    summary: 'Tags and subject terms that begin so.',
    query: SuggestQuery,
    reply: TagList,
    handler: async ({ workspace, query }) => ({
      tags: await suggestTags(services.db, workspace.id, query.begins ?? ''),
    }),
  });
  declare({
    method: 'POST',
    path: '/w/:workspace/tagging',
    may: 'edit',
    summary: 'Put a tag on sources, or take it from them.',
    body: TagSources,
    reply: Changed,
    handler: async ({ workspace, actor, body }) => {
      const name = body.name.trim();
      if (!name) throw new Refusal('invalid', 'a tag needs a name');
      const subject = body.subject ?? false;
      const ids = await ensureTags(services.db, workspace.id, [name], subject);
      const tag = ids.get(name.toLowerCase()) ?? [...ids.values()][0]!;
      return answer(
        await commit(services, actor, { do: 'tag', tag, name, subject, sources: body.ids, present: body.present }),
      );
    },
  });
}
