import { namedFacet } from '../searching/facets.ts';
import type { FieldsOf } from '../searching/fields.ts';

export const tagFields: FieldsOf<'tag' | 'subject' | 'has:tag'> = {
  tag: namedFacet('tag'),
  subject: namedFacet('subject'),
  'has:tag': { condition: (_, { facet }) => facet('tagged', ['yes']) },
};
