import { findDois, normaliseDoi } from '../../identifiers/index.ts';
import { short, type Rule } from '../rule.ts';

export const doiForm: Rule = {
  id: 'doi-form',
  severity: 'wrong',
  title: 'DOI that is none',
  why: 'A DOI in another form leads nowhere (ISO 26324: “10.”, a registrant, “/”, a suffix).',
  find({ record: { DOI } }) {
    if (DOI === undefined || normaliseDoi(DOI)) return [];
    const inside = findDois(DOI)[0];
    return [
      {
        field: 'DOI',
        what: `“${short(DOI)}” is no DOI`,
        sure: inside ? 0.9 : 0.97,
        ...(inside && { mend: { DOI: inside } }),
      },
    ];
  },
};
