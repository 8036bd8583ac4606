/** What is asked for by what each member says for themselves. */
import { READING_STATES } from '@pandecta/core/changes';
import { valueMeant } from '@pandecta/core/query';
import { NOTHING } from '../searching/facets.ts';
import type { FieldsOf } from '../searching/fields.ts';

export const ownFields: FieldsOf<'state' | 'is:starred'> = {
  state: {
    async condition(text, { facet }) {
      const meant = valueMeant('state', text);
      if (meant === 'none') return { is: 'not', part: await facet('reading', READING_STATES) };
      return meant ? facet('reading', [meant]) : NOTHING;
    },
  },
  'is:starred': { condition: (_, { facet }) => facet('star', ['yes']) },
};
