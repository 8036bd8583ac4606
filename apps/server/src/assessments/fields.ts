/** What is asked for by labels, ratings, and what is to be checked again. */
import { HIGHEST_RATING } from '@pandecta/core/changes';
import { parseYears } from '@pandecta/core/query';
import { namedFacet } from '../searching/facets.ts';
import type { FieldsOf } from '../searching/fields.ts';

export const stateFields: FieldsOf<'label' | 'rating' | 'is:again'> = {
  label: namedFacet('label'),
  rating: {
    condition(text, { facet }) {
      const { from = 1, to = HIGHEST_RATING } = parseYears(text) ?? { from: HIGHEST_RATING + 1 };
      const wanted = Array.from({ length: HIGHEST_RATING }, (_, i) => i + 1).filter((r) => r >= from && r <= to);
      return facet('rating', wanted.map(String));
    },
  },
  'is:again': { condition: (_, { facet }) => facet('again', ['yes']) },
};
