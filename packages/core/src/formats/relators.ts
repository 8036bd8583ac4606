/** MARC relator codes (id.loc.gov/vocabulary/relators) for roles a record has, as MODS and MARC write them. */
import type { NameVariable } from '../source/index.ts';

export const RELATORS: [NameVariable, string][] = [
  ['author', 'aut'],
  ['editor', 'edt'],
  ['translator', 'trl'],
  ['illustrator', 'ill'],
  ['compiler', 'com'],
  ['recipient', 'rcp'],
  ['interviewer', 'ivr'],
];
