/** The wider literature of the inquiry: what was written of other made-up estuaries, gathered first and filed nowhere. */
import type { SourceRecord } from '@pandecta/core/source';
import { isbn, people, slug, type DemoSource } from './sources.ts';
import { Chance } from './random.ts';
import { JOURNALS, PUBLISHERS, SENTENCES, SUBJECTS, type Theme } from './words.ts';

const MATTERS: [string, Theme][] = [
  ['Reed and salt', 'saltmarsh'],
  ['Who pays for a closed gate', 'licensing'],
  ['Night watches', 'operators'],
  ['Accretion after breach', 'saltmarsh'],
  ['Petitions of the boatmen', 'archive'],
  ['The harbour master’s discretion', 'licensing'],
  ['Creek networks', 'saltmarsh'],
  ['Minutes of a drainage board', 'archive'],
  ['Training the gate crew', 'operators'],
  ['Notice and reliance', 'licensing'],
  ['Surge and set-back', 'saltmarsh'],
  ['Ledgers and lost petitions', 'archive'],
  ['Alarms that were not heard', 'operators'],
  ['Compensation without fault', 'licensing'],
  ['Mudflat to meadow', 'saltmarsh'],
];
const PLACES = [
  'Gannet Water',
  'Ashmere',
  'Kelsing Sound',
  'Brent Ooze',
  'Mallow Creek',
  'Saltreach',
  'Eelwater',
  'Tarn Mouth',
  'Quill Bar',
  'Oxmarsh',
  'Lapwing Reach',
  'Sedge Haven',
  'Cordwain Flats',
  'Nethermere',
  'Plover Sands',
  'Ebb Hallow',
];
/** With a document. */
const WITH_PAGES = 35;

const chance = new Chance(2411);

function make(matter: string, theme: Theme, place: string, i: number): DemoSource {
  const year = chance.int(1958, 2025);
  const record: SourceRecord = {
    type: 'article-journal',
    title: `${matter} at ${place}`,
    author: people(chance, chance.pick([1, 1, 2, 3])),
    issued: { 'date-parts': [[year]] },
    abstract: chance.some(SENTENCES[theme], 2).join(' '),
  };
  const [publisher, at] = chance.pick(PUBLISHERS);
  if (i % 8 === 3) {
    Object.assign(record, { type: 'book', publisher, 'publisher-place': at, ISBN: isbn(4000 + i) });
  } else if (i % 8 === 6) {
    const number = `${chance.int(1, 40)}`;
    Object.assign(record, { type: 'report', genre: 'Technical report', number, publisher: 'Estuary Trust' });
  } else if (i % 16 === 9) {
    Object.assign(record, { type: 'thesis', genre: 'Doctoral thesis', publisher: 'Withy University' });
  } else {
    const [journal, , issn] = chance.pick(JOURNALS);
    const from = chance.int(1, 380);
    Object.assign(record, {
      'container-title': journal,
      ISSN: issn,
      volume: String(Math.max(1, year - 1950)),
      issue: String(chance.int(1, 4)),
      page: `${from}-${from + chance.int(6, 28)}`,
      ...(year > 1995 && { DOI: `10.5555/${slug(record.title!)}.${i}` }),
    });
  }
  const pages = i % 7 === 2 && i < WITH_PAGES * 7 ? { pages: 2 } : {};
  return { record, theme, tags: [], subjects: chance.some(SUBJECTS[theme], chance.int(0, 2)), ...pages };
}

export const WIDER: DemoSource[] = PLACES.flatMap((place, p) =>
  MATTERS.map(([matter, theme], m) => make(matter, theme, place, p * MATTERS.length + m)),
);
