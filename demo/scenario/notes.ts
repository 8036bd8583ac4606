/** What the inquiry's members think of what they read: headings, notes and outlines. */
import type { HeadingKind } from '@pandecta/core/headings';
import type { How } from '@pandecta/core/notes';

export interface DemoHeading {
  name: string;
  kind: HeadingKind;
  others?: string[];
  dates?: string;
  place?: string;
  says?: string;
  /** The name of the broader one. */
  under?: string;
}

export const HEADINGS: DemoHeading[] = [
  { name: 'Okonjo, Elias', kind: 'person', others: ['Okonjo, E.', 'E. Okonjo, boatman'], dates: '1821/1890', place: 'Sallow Quay', says: 'Boatman; spoke for the petitioners of 1871' }, // prettier-ignore
  { name: 'Penhallow, Jonas', kind: 'person', says: 'Writes on harbour administration' },
  { name: 'Loam, Matthew', kind: 'person', dates: '1872', place: 'Withy Bank', says: 'Tenant at Withy Bank; wrote the first letter of 1872' }, // prettier-ignore
  { name: 'Tregenza, Piers', kind: 'person', says: 'Holds that no promise bound the Commission' },
  { name: 'Halvard, Runa', kind: 'person' },
  { name: 'Marsh, Adela', kind: 'person' },
  { name: 'Vasseur, Clémence', kind: 'person', others: ['Vasseur, C.'] },
  { name: 'Quill, Tobias', kind: 'person' },
  { name: 'Gatekeeper of the lower gate', kind: 'person', others: ['the keeper'], says: 'Not named in any letter' },
  { name: 'Harbour Commission', kind: 'body', others: ['Commissioners of the Harbour', 'the Commissioners'], dates: '1841/1903', place: 'Sallow Quay' }, // prettier-ignore
  { name: 'Drainage Board of the Upper Sallow', kind: 'body', others: ['the Board'], dates: '1853/' },
  { name: 'Boatmen of the Quayside', kind: 'body', others: ['the petitioners'] },
  { name: 'Sallow Estuary Inquiry', kind: 'body', dates: '2025/' },
  { name: 'Court of the Shore', kind: 'body', says: 'Hears cases of navigation and shore' },
  { name: 'Sallow Mouth', kind: 'place' },
  { name: 'Ferrow Point', kind: 'place', under: 'Sallow Mouth' },
  { name: 'Withy Bank', kind: 'place' },
  { name: 'Lower gate', kind: 'place', under: 'Sallow Mouth', others: ['the gate', 'the barrier'] },
  { name: 'Upper saltmarsh', kind: 'place' },
  { name: 'Quayside', kind: 'place', under: 'Sallow Mouth' },
  { name: 'Spring closure of 1872', kind: 'event', dates: '1872-02/1872-05', others: ['the closure'] },
  { name: 'Petition of 1871', kind: 'event', dates: '1871-02' },
  { name: 'Flood of January 1974', kind: 'event', dates: '1974-01-12', others: ['the night the gate stayed open'] },
  { name: 'Inquiry, first sitting', kind: 'event', dates: '2025-10' },
  { name: 'Building of the barrier', kind: 'event', dates: '1868/1870' },
  { name: 'promise of 1872', kind: 'theme', others: ['the promise'], says: 'Whether the Commission bound itself to keep the ebb open' }, // prettier-ignore
  { name: 'operator duty', kind: 'theme', others: ['duty to close', 'closing duty'] },
  { name: 'hour of closure', kind: 'theme', under: 'operator duty' },
  { name: 'forecasts', kind: 'theme', under: 'operator duty' },
  { name: 'notice to mariners', kind: 'theme', under: 'operator duty' },
  { name: 'fishermen’s losses', kind: 'theme' },
  { name: 'licences before 1974', kind: 'theme', others: ['silent licences'] },
  { name: 'right of navigation', kind: 'theme' },
  { name: 'sediment', kind: 'theme', others: ['silt'] },
  { name: 'accretion', kind: 'theme', under: 'sediment' },
  { name: 'vegetation of the marsh', kind: 'theme' },
  { name: 'gauges', kind: 'theme', others: ['the recorder'] },
  { name: 'reliance', kind: 'theme', says: 'What was done because the promise was believed' },
  { name: 'minutes and what they leave out', kind: 'theme' },
  { name: 'handwriting and dating', kind: 'theme' },
];

export interface DemoNote {
  title: string;
  says: string[];
  event?: string;
  about: string[];
  tags?: string[];
  own?: true;
  /** The title of another note, and how it stands to it. */
  link?: [title: string, how: How | null];
}

export const NOTES: DemoNote[] = [
  { title: 'Petition of the boatmen', event: 'February 1871', about: ['Petition of 1871', 'Boatmen of the Quayside', 'promise of 1872'], says: ['They ask that the ebb be left free for two hours at the springs. The word promise stands in the last line, as if there had been one before.'], tags: ['used'] }, // prettier-ignore
  { title: 'The minute of 21 February', event: '21 Feb 1872', about: ['Harbour Commission', 'minutes and what they leave out', 'Spring closure of 1872'], says: ['Nobody had objected, says the minute; the letter lay on the table.'] }, // prettier-ignore
  { title: 'Okonjo reminds the Commission that the ebb was promised', event: '18 Feb 1872', about: ['Okonjo, Elias', 'Harbour Commission', 'promise of 1872'], says: ['He writes four days before the closure, so the Secretary knew.'], link: ['The minute of 21 February', 'disagrees'] }, // prettier-ignore
  { title: 'Who knew before the closure?', event: '22 Feb 1872', about: ['Spring closure of 1872', 'Harbour Commission', 'Okonjo, Elias', 'reliance'], says: ['Three letters and one telegram. In order: the petition, Loam, Okonjo, then the wire from Ferrow Point.', 'The Secretary had all four by the evening of the 21st.'], link: ['Okonjo reminds the Commission that the ebb was promised', 'follows'] }, // prettier-ignore
  { title: 'Loam writes from Withy Bank', event: '2 January 1872', about: ['Loam, Matthew', 'Withy Bank', 'Lower gate', 'Gatekeeper of the lower gate'], says: ['The first letter that says who keeps the key: nobody has told the keeper.'], link: ['Who knew before the closure?', null] }, // prettier-ignore
  { title: 'The gate is shut on the ebb', event: '22 February 1872', about: ['Spring closure of 1872', 'Lower gate', 'fishermen’s losses'], says: ['Eleven boats aground. The Packet has the names of four owners.'] }, // prettier-ignore
  { title: 'A boatman’s account, forty years on', event: '1911~', about: ['Boatmen of the Quayside', 'promise of 1872', 'reliance'], says: ['“They had given their word and we went out on it.” Told late and second hand; use for reliance, not for the date.'], link: ['The gate is shut on the ebb', 'agrees'] }, // prettier-ignore
  { title: 'What a court would call a promise', about: ['promise of 1872', 'reliance', 'Court of the Shore'], says: ['Reliance, knowledge, loss: all three stand in the letters. What is missing is a hand that had power to sign.'], link: ['Who knew before the closure?', 'follows'] }, // prettier-ignore
  { title: 'Tregenza denies it', about: ['Tregenza, Piers', 'promise of 1872'], says: ['He counts the Commission’s powers and finds none to bind a successor. He does not mention the letters.'], link: ['What a court would call a promise', 'disagrees'], tags: ['adverse'] }, // prettier-ignore
  { title: 'Losses of the spring fishing', event: 'spring 1872', about: ['fishermen’s losses', 'Boatmen of the Quayside', 'Quayside'], says: ['The ledger of the fish quay drops by half in March and does not come back that year.'] }, // prettier-ignore
  { title: 'The barrier is finished', event: '1870', about: ['Building of the barrier', 'Lower gate', 'Drainage Board of the Upper Sallow'], says: ['The Board pays, the Commission builds, and neither writes down who turns the wheel.'] }, // prettier-ignore
  { title: 'Which hand dates by the tide?', about: ['handwriting and dating'], says: ['The second writer of the minute book dates by the tide. Three of our letters can be placed by it.'] }, // prettier-ignore
  { title: 'The night the lower gate stayed open', event: '1974-01-12', about: ['Flood of January 1974', 'Lower gate', 'operator duty'], says: ['The duty operator waited for a second forecast. Nothing in the licence told him not to.'] }, // prettier-ignore
  { title: 'Silence of the licences', event: '1921/1973', about: ['licences before 1974', 'operator duty'], says: ['41 licences read; 6 name a closing hour; none names a person.'], tags: ['used'] }, // prettier-ignore
  { title: 'Who must close: three readings', about: ['operator duty', 'licences before 1974', 'right of navigation'], says: ['The operator by licence; the Commission by its act; nobody, by silence. The brief needs the first and must meet the third.'], link: ['Silence of the licences', 'follows'] }, // prettier-ignore
  { title: 'The recorder could not see it', event: '1973/1974', about: ['gauges', 'Flood of January 1974', 'forecasts'], says: ['The gauge was below the level that counted. So no reading of that night shows the peak.'] }, // prettier-ignore
  { title: 'Starved of silt', event: '198X', about: ['sediment', 'Upper saltmarsh', 'accretion'], says: ['Behind the gate the marsh sinks by what the tide no longer brings. Two cores agree, one does not.'] }, // prettier-ignore
  { title: 'Part I and part II do not use the same datum', about: ['accretion', 'gauges', 'Upper saltmarsh'], says: ['Take the difference off before comparing: 0.14 m, from the appendix.'], tags: ['field data'] }, // prettier-ignore
  { title: 'Plants tell it sooner', event: '1995/2005', about: ['vegetation of the marsh', 'Upper saltmarsh', 'accretion'], says: ['The low marsh moves up before the cores show anything.'], link: ['Starved of silt', 'agrees'] }, // prettier-ignore
  { title: 'First sitting: what was asked', event: 'October 2025', about: ['Inquiry, first sitting', 'Sallow Estuary Inquiry', 'operator duty'], says: ['Whether the duty is owed to the boats or to the shore. Nobody had a case for the boats.'] }, // prettier-ignore
  { title: 'Ask at the seminar', about: ['handwriting and dating', 'accretion'], says: ['How were the cores dated? The appendix does not say.'], own: true }, // prettier-ignore
  { title: 'For the talk in Withy', about: ['promise of 1872'], says: ['Begin with the telegram. End with the empty line of the minute.'], own: true }, // prettier-ignore
];

/** What notes on marked sentences add, and what they are about, by theme. */
export const THEMES: Record<string, { about: string[]; adds: string[]; years: [number, number] | null }> = {
  licensing: { about: ['licences before 1974', 'operator duty', 'right of navigation', 'notice to mariners', 'hour of closure'], adds: ['Check against the act itself.', 'Goes with the silent licences.', 'The brief needs this in its second part.'], years: [1900, 1985] }, // prettier-ignore
  saltmarsh: { about: ['sediment', 'accretion', 'vegetation of the marsh', 'Upper saltmarsh'], adds: ['Same site as the second core.', 'Compare with the resurvey.', 'For the table in chapter 2.'], years: [1970, 2020] }, // prettier-ignore
  archive: { about: ['Harbour Commission', 'promise of 1872', 'Boatmen of the Quayside', 'minutes and what they leave out', 'fishermen’s losses'], adds: ['Another witness for the promise.', 'Date by the tide table.', 'Who copied this?'], years: [1868, 1876] }, // prettier-ignore
  operators: { about: ['operator duty', 'hour of closure', 'forecasts', 'gauges', 'Lower gate'], adds: ['The operators say otherwise.', 'A figure for the appendix.', 'Nine hours is what they had.'], years: [1955, 2015] }, // prettier-ignore
};

export const OUTLINES: { name: string; parts: { title: string; notes: string[] }[] }[] = [
  { name: 'Chapter 2: the promise', parts: [{ title: 'Before the closure', notes: ['The barrier is finished', 'Petition of the boatmen', 'Loam writes from Withy Bank', 'Okonjo reminds the Commission that the ebb was promised', 'The minute of 21 February'] }, { title: 'What followed', notes: ['The gate is shut on the ebb', 'Losses of the spring fishing', 'A boatman’s account, forty years on'] }, { title: 'What it binds', notes: ['What a court would call a promise', 'Tregenza denies it'] }] }, // prettier-ignore
  { name: 'Brief: who must close', parts: [{ title: 'The licences', notes: ['Silence of the licences', 'Who must close: three readings'] }, { title: 'The night of 1974', notes: ['The night the lower gate stayed open', 'The recorder could not see it'] }] }, // prettier-ignore
  { name: 'Talk in Withy', parts: [{ title: 'The marsh', notes: ['Starved of silt', 'Plants tell it sooner'] }, { title: 'The letters', notes: ['Who knew before the closure?', 'The minute of 21 February'] }] }, // prettier-ignore
];
