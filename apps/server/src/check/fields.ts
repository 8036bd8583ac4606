import { findRules } from '@pandecta/core/proofing';
import { fold } from '@pandecta/core/words';
import type { FieldsOf } from '../searching/fields.ts';
import { SOUND } from './facets.ts';

export const checkFields: FieldsOf<'finding'> = {
  finding: { condition: (text, { facet }) => facet('finding', fold(text) === 'none' ? [SOUND] : findRules(text)) },
};
