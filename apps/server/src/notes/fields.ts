import { namedFacet } from '../searching/facets.ts';
import type { FieldsOf } from '../searching/fields.ts';

export const noteFields: FieldsOf<'about' | 'has:research'> = {
  about: namedFacet('about'),
  'has:research': { condition: (_, { facet }) => facet('noted', ['yes']) },
};
