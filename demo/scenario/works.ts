/**
 * What the invented catalogues hold: 5,000 works of the scenario's world, made of its matters, places and people from a
 * seed, the same every time. None of them is among the sources of the inquiry but those said to be.
 */
import type { Name, SourceRecord } from '@pandecta/core/source';
import { Chance } from './random.ts';
import { SOURCES } from './sources.ts';
import { CASES, JOURNALS, PEOPLE, PUBLISHERS, SENTENCES, SUBJECTS, type Theme } from './words.ts';

export interface Work {
  record: SourceRecord;
  subjects: string[];
  /** The day it came into catalogues, counted from the first: new ones appear as days pass. */
  day: number;
  hasPdf: boolean;
}

/** How many works there are on the first day, and how many come with each day after. */
export const ON_FIRST_DAY = 5000;
export const EACH_DAY = 3;
const DAYS = 60;

const MATTERS: [string, Theme][] = [
  ['Barrier closure and saltmarsh accretion at', 'saltmarsh'],
  ['Sediment supply behind the gate at', 'saltmarsh'],
  ['Larval drift and gate regimes at', 'saltmarsh'],
  ['Marsh-edge erosion in a regulated tide:', 'saltmarsh'],
  ['Benthic communities upstream of the gate at', 'saltmarsh'],
  ['Salinity and the returning reed at', 'saltmarsh'],
  ['The duty to close: licences for', 'licensing'],
  ['Tidal gate licence and the duty of care at', 'licensing'],
  ['Rights of navigation past the gate at', 'licensing'],
  ['Compensation for late closure at', 'licensing'],
  ['The cost of not closing the gate at', 'operators'],
  ['Surge warning and closing time at', 'operators'],
  ['Night watch and telemetry at', 'operators'],
  ['Operator judgement under uncertain tides at', 'operators'],
  ['The commission’s soundings of', 'archive'],
  ['Petitions of the fishermen of', 'archive'],
  ['A gatekeeper’s diary from', 'archive'],
  ['Tolls, tides and the harbour office at', 'archive'],
];
const PLACES = [
  'Withy Reach',
  'Sallow Mouth',
  'Northmere Flats',
  'Thornquay Basin',
  'Ottery Creek',
  'Ferrow Point',
  'Penhallow Hard',
  'Saltholm Sound',
  'Ebbe Harbour',
  'Quill Sands',
  'Brackwater Lock',
  'Marsh End',
  'Halvard Roads',
  'the Samphire Banks',
  'Wold Haven',
];
const TURNS = [
  '',
  ': a survey',
  ', revisited',
  ': evidence from two decades',
  ': a comparative study',
  ' and its record',
  ': notes and documents',
  ' before and after',
];

const chance = new Chance(5000);
const nameOf = ([given, family]: [string, string]): Name => ({ given, family });

function make(i: number): Work {
  const [matter, theme] = MATTERS[i % MATTERS.length]!;
  const place = PLACES[Math.floor(i / MATTERS.length) % PLACES.length]!;
  const round = Math.floor(i / (MATTERS.length * PLACES.length));
  const year = chance.int(1968, 2026);
  const title = `${matter} ${place}${TURNS[round % TURNS.length]!}${round >= TURNS.length ? `, ${year}` : ''}`;
  const author = chance.some(PEOPLE, chance.pick([1, 1, 2, 2, 3])).map(nameOf);
  const from = chance.int(1, 400);
  const day = i < ON_FIRST_DAY ? 0 : 1 + Math.floor((i - ON_FIRST_DAY) / EACH_DAY);
  const issued = { 'date-parts': [[day ? 2026 : year]] };
  const subjects = chance.some(SUBJECTS[theme], 2);
  const abstract = chance.some(SENTENCES[theme], 2).join(' ');
  const whole: Work = {
    record: { type: 'article-journal', title, author, issued, abstract },
    subjects,
    day,
    hasPdf: false,
  };
  if (i % 17 === 5) {
    const [publisher, at] = chance.pick(PUBLISHERS);
    whole.record = { ...whole.record, type: 'book', publisher, 'publisher-place': at };
  } else if (theme === 'licensing' && i % 5 === 0) {
    const court = chance.pick(CASES)[3];
    const parties = [chance.pick(PEOPLE)[1], `${chance.pick(PLACES)} Gate Board`];
    whole.record = {
      type: 'legal_case',
      title: `${parties[0]} v ${parties[1]}`,
      issued,
      volume: String(chance.int(1, 20)),
      'container-title': 'Estuary Reports',
      page: String(from),
      authority: court,
      abstract,
    };
  } else {
    const [journal, , issn] = chance.pick(JOURNALS);
    whole.record = {
      ...whole.record,
      'container-title': journal,
      ISSN: issn,
      volume: String(Math.max(1, (day ? 2026 : year) - 1965)),
      issue: String(chance.int(1, 4)),
      page: `${from}-${from + chance.int(5, 30)}`,
      DOI: `10.5555/w${i.toString(36)}.${day ? 2026 : year}`,
    };
    whole.hasPdf = i % 6 === 0;
  }
  return whole;
}

/** Some of the inquiry's own articles are in the catalogues too: searching finds what one has. */
const OWN: Work[] = SOURCES.filter((s) => s.record.type === 'article-journal').map((s) => ({
  record: s.record,
  subjects: s.subjects,
  day: 0,
  hasPdf: false,
}));

export const WORKS: Work[] = [
  ...OWN,
  ...Array.from({ length: ON_FIRST_DAY - OWN.length + DAYS * EACH_DAY }, (_, i) =>
    make(i < ON_FIRST_DAY - OWN.length ? i : i + OWN.length),
  ),
];
