/** Tags: suggestions as one types, and putting them on sources. */
import { routes, VOCABULARY_FORMATS } from '@pandecta/contract';
import { answer } from '../changes/commit.ts';
import { commit } from '../changes/service.ts';
import { Refusal } from '../errors.ts';
import type { Declare } from '../http/route.ts';
import { chosenIds } from '../searching/chosen.ts';
import type { Services } from '../services.ts';
import { bringVocabulary, termsToTags, vocabularyFile } from './exchange.ts';
import { refuseOther } from './allowed.ts';
import { editTerm, mergeTerms, removeTerm, vocabulary } from './service.ts';
import { ensureTags, suggestTags } from './store.ts';

export function tagRoutes(declare: Declare, services: Services): void {
  declare(routes.tags.suggest, async ({ actor, query }) => ({
    tags: await suggestTags(services.db, actor, query.begins ?? ''),
  }));
  declare(routes.tags.vocabulary, ({ actor }) => vocabulary(services, actor));
  declare(routes.tags.edit, ({ actor, params, body }) => editTerm(services, actor, params.tag, body));
  declare(routes.tags.merge, ({ actor, body }) => mergeTerms(services, actor, body.into, body.terms));
  declare(routes.tags.remove, ({ actor, params }) => removeTerm(services, actor, params.tag));
  declare(routes.tags.saveVocabulary, async ({ actor, query, reply }) => {
    const { mediaType, extension } = VOCABULARY_FORMATS[query.format];
    return reply
      .type(`${mediaType}; charset=utf-8`)
      .header('content-disposition', `attachment; filename="vocabulary.${extension}"`)
      .send(await vocabularyFile(services, actor, query));
  });
  declare(routes.tags.bringVocabulary, ({ actor, body }) =>
    bringVocabulary(services, actor, body.text, body.subject ?? false),
  );
  declare(routes.tags.toTags, ({ actor, body }) => termsToTags(services, actor, body.terms, body.keep));
  declare(routes.tags.tag, async (call) => {
    const { workspace, actor, body } = call;
    const sources = await chosenIds(services, call, body);
    const name = body.name.trim();
    if (!name) throw new Refusal('invalid', 'a tag needs a name');
    const subject = body.subject ?? false;
    if (body.present && !subject) await refuseOther(services.db, actor, name, sources);
    const ids = await ensureTags(services.db, workspace.id, [name], subject);
    const tag = ids.get(name.toLowerCase()) ?? [...ids.values()][0]!;
    return answer(await commit(services, actor, { do: 'tag', tag, name, subject, sources, present: body.present }));
  });
}
