import { yearOf } from '../../source/index.ts';
import type { Rule } from '../rule.ts';

/** Many registrants put the year into the DOI (common practice): "10.5555/jwsl.2014.0223", "10.5555/2014-17". */
const YEAR = /(?<=[./_()-])(?:19|20)\d\d(?=[./_()-]|$)/g;

export const yearInDoi: Rule = {
  id: 'year-in-doi',
  severity: 'look',
  title: 'Year other than its DOI says',
  why: 'One of the two is of another work, or the year is that of another version.',
  find({ record: { DOI, issued } }) {
    const year = yearOf(issued);
    if (!DOI || year === undefined) return [];
    const said = [...new Set(DOI.match(YEAR))];
    // Online first is a year earlier; a DOI with several such numbers has something else in them.
    if (said.length !== 1 || Math.abs(Number(said[0]) - year) <= 1) return [];
    return [{ field: 'issued', what: `The DOI says ${said[0]}, the record ${year}`, sure: 0.5 }];
  },
};
