import { namedFacet } from '../searching/facets.ts';
import type { FieldsOf } from '../searching/fields.ts';

export const markFields: FieldsOf<'sense' | 'has:mark' | 'has:gloss'> = {
  sense: namedFacet('sense'),
  'has:mark': { condition: (_, { facet }) => facet('marked', ['mark']) },
  'has:gloss': {
    async condition(_, { facet }) {
      return { is: 'or', parts: [await facet('marked', ['gloss']), await facet('glossed', ['yes', 'own'])] };
    },
  },
};
