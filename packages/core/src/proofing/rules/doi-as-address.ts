import { plainDoi } from '../../identifiers/index.ts';
import { short, type Rule } from '../rule.ts';

export const doiAsAddress: Rule = {
  id: 'doi-as-address',
  severity: 'looks wrong',
  title: 'DOI as an address',
  why: 'Styles put the address before a DOI themselves: it would stand there twice.',
  find({ record: { DOI, URL } }) {
    const plain = DOI && plainDoi(DOI);
    if (plain && plain !== DOI)
      return [{ field: 'DOI', what: `The DOI is written “${short(DOI)}”`, sure: 0.98, mend: { DOI: plain } }];
    const inUrl = !DOI && URL && /^https?:\/\/(?:dx\.)?doi\.org\//i.test(URL) ? plainDoi(URL) : undefined;
    return inUrl
      ? [{ field: 'URL', what: 'The address is that of its DOI', sure: 0.97, mend: { DOI: inUrl, URL: null } }]
      : [];
  },
};
