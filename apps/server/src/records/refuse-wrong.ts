import { isCitationKey, LONGEST_CITATION_KEY } from '@pandecta/core/citation-key';
import { isFieldValue, tooMuchIn, variableLabel, type FieldValue } from '@pandecta/core/source';
import { cut } from '@pandecta/core/text';
import { Refusal } from '../errors.ts';

/**
 * Values that come from outside, by their fields; null takes a field away.
 * @throws Refusal that names the fields which cannot hold their values, or not so much
 */
export function refuseWrong(values: Record<string, unknown>): asserts values is Record<string, FieldValue | null> {
  const wrong = Object.entries(values).flatMap(([field, value]) => {
    if (value === null ? field === 'type' : !isFieldValue(field, value))
      return `${cut(variableLabel(field), 60)} cannot hold this value`;
    if (field === 'citation-key' && typeof value === 'string' && !isCitationKey(value))
      return `a citation key has no blanks, brackets, commas or signs as @ and #, and at most ${LONGEST_CITATION_KEY} characters`;
    const much = tooMuchIn(field, value as FieldValue | null);
    return much ? `${variableLabel(field)} holds ${much}` : [];
  });
  if (wrong.length) throw new Refusal('invalid', cut(wrong.join('; '), 500));
}
