import { namedFacet } from '../searching/facets.ts';
import type { FieldsOf } from '../searching/fields.ts';

export const markFields: FieldsOf<'sense' | 'has:mark' | 'has:gloss'> = {
  sense: namedFacet('sense'),
  'has:mark': { condition: (_, { facet }) => facet('marked', ['mark']) },
  'has:gloss': { condition: (_, { facet }) => facet('marked', ['gloss']) },
};
