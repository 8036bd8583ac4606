/** The made-up world of the Sallow Estuary: people, journals, places, and what they write about. */
export const PEOPLE: [given: string, family: string][] = [
  ['Marit', 'Okonjo'],
  ['Piers', 'Tregenza'],
  ['Ines', 'Vance'],
  ['Kenzo', 'Ito'],
  ['Adela', 'Marsh'],
  ['Tobias', 'Quill'],
  ['Runa', 'Halvard'],
  ['Oskar', 'Lindqvist-Mare'],
  ['Solveig', 'Ferrow'],
  ['Emeka', 'Duru-Hale'],
  ['Clémence', 'Vasseur'],
  ['Jonas', 'Penhallow'],
  ['Wilhelmina', 'van der Zande'],
  ['Renske', 'de Groot-Wadde'],
  ['Anton', 'Brackwater'],
  ['Leila', 'Samphire'],
  ['Gwen', 'Ottery'],
  ['Ruairí', 'Mac Giolla Fhinn'],
  ['Zofia', 'Przypływ'],
  ['João', 'Maré-Viva'],
  ['Hanne', 'Ebbe'],
  ['Nadia', 'Thornquay'],
  ['Caspar', 'Wold'],
  ['Ìdòwú', 'Àdùkẹ́'],
  ['Freya', 'Saltholm'],
  ['Milan', 'Kolísek'],
];

export const JOURNALS: [title: string, short: string, issn: string][] = [
  ['Journal of Water and Shore Law', 'J. Water Shore L.', '2049-3630'],
  ['Coastal Processes', 'Coast. Proc.', '1050-124X'],
  ['Estuary and Marsh', 'Est. Marsh', '2434-561X'],
  ['Tidal Engineering Review', 'Tidal Eng. Rev.', '0317-8471'],
  ['Harbour History', 'Harb. Hist.', '1940-5758'],
  ['Annals of Drainage and Navigation', 'Ann. Drain. Nav.', '0378-5955'],
];

export const PUBLISHERS: [name: string, place: string][] = [
  ['Quillback Press', 'Sallow'],
  ['Withy University Press', 'Withy'],
  ['Ebbside Books', 'Northmere'],
  ['Tern & Daughter', 'Sallow Quay'],
];

/** Titles and the theme each belongs to; a theme decides collection, tags, subjects and the sentences of a document. */
export type Theme = 'licensing' | 'saltmarsh' | 'archive' | 'operators';

export const ARTICLES: [title: string, theme: Theme][] = [
  ['Who Closes the Gate? Operator Discretion under Tidal Barrier Licences', 'licensing'],
  ['Sediment starvation behind permanently closed tidal barriers', 'saltmarsh'],
  ['Silent Licences: Closure Duties before 1974', 'licensing'],
  ['Accretion rates in the upper Sallow saltmarsh, part I', 'saltmarsh'],
  ['Accretion rates in the upper Sallow saltmarsh, part II', 'saltmarsh'],
  ['The Right of Navigation and the Closed Gate', 'licensing'],
  ['Vegetation zonation after a decade of regulated tides', 'saltmarsh'],
  ['A gauge below its level: what the Sallow recorder could not see', 'operators'],
  ['Notice to Mariners as a Condition Precedent', 'licensing'],
  ['Surge forecasting and the hour of closure', 'operators'],
  ['Creek network response to restricted tidal exchange', 'saltmarsh'],
  ['Promises at the Quayside: The Harbour Commission and the Fishermen of 1871', 'archive'],
  ['Public Trust in Tidal Waters Revisited', 'licensing'],
  ['Barrier closures and the nursery function of saltmarsh creeks', 'saltmarsh'],
  ['Liability of Statutory Undertakers for Late Closure', 'licensing'],
  ['Reading a Commission’s minute book', 'archive'],
  ['Benthic communities upstream of tidal gates', 'saltmarsh'],
  ['Operator fatigue and the night closure', 'operators'],
  ['Sea-level rise and the frequency of barrier closure', 'operators'],
  ['Carbon burial in regulated marshes', 'saltmarsh'],
  ['The Drainage Boards and the Ebb: An Administrative History', 'archive'],
  ['Implied Terms in Works Licences', 'licensing'],
  ['Salt, silt and Spartina: a forty-year transect', 'saltmarsh'],
  ['Decision rules for closing a tidal barrier under uncertain forecasts', 'operators'],
  ['Obstruction, Nuisance and the Tide', 'licensing'],
  ['Redshank breeding success on marshes with shortened inundation', 'saltmarsh'],
  ['Clerks, copyists and the lost letter of 1872', 'archive'],
  ['Measuring what the barrier keeps out: suspended sediment at Withy Reach', 'saltmarsh'],
  ['Human factors in tidal barrier control rooms', 'operators'],
  ['Standing of Fishery Associations in Closure Disputes', 'licensing'],
  ['Recovery of marsh-edge invertebrates after managed reopening', 'saltmarsh'],
  ['Maps of the Sallow mouth, 1790–1880', 'archive'],
  ['Hydraulic head and seepage at the Withy Sluice', 'operators'],
  ['Delegated Discretion and the Harbour Master', 'licensing'],
  ['Nutrient retention in tidally restricted wetlands', 'saltmarsh'],
  ['A statistical account of closures, 1961–2009', 'operators'],
  ['Estoppel by Public Promise? The Commission’s Undertaking of 1872', 'licensing'],
  ['Lateral erosion of marsh edges near gated structures', 'saltmarsh'],
  ['Telegraph, tide table and gatekeeper', 'archive'],
  ['Ensemble surge forecasts for small estuaries', 'operators'],
  ['Remedies for Loss of Marsh', 'licensing'],
  ['Halophyte seed dispersal through sluice gates', 'saltmarsh'],
  ['Évaluation des fermetures de barrages à marée', 'operators'],
  ['Gezeitensperrwerke und die Pflicht zum Schließen', 'licensing'],
];

export const BOOKS: [title: string, theme: Theme][] = [
  ['Gates, Sluices and the Public Right: A History', 'archive'],
  ['The Law of Tidal Works', 'licensing'],
  ['Saltmarsh Ecology of Northern Estuaries', 'saltmarsh'],
  ['Silt: A Natural History of the Sallow', 'saltmarsh'],
  ['Harbour Commissions and Their Papers', 'archive'],
  ['Operating Barriers: A Handbook', 'operators'],
  ['Water, Right and Remedy', 'licensing'],
  ['The Estuary in Evidence', 'licensing'],
  ['Tides of the Northmere Coast', 'operators'],
  ['Common Marsh, Private Wall', 'archive'],
];

export const CHAPTERS: [title: string, book: string, theme: Theme][] = [
  ['The commission’s promise', 'Harbour Commissions and Their Papers', 'archive'],
  ['Licences and silence', 'The Law of Tidal Works', 'licensing'],
  ['Accretion and its limits', 'Saltmarsh Ecology of Northern Estuaries', 'saltmarsh'],
  ['The night watch', 'Operating Barriers: A Handbook', 'operators'],
  ['Who speaks for the creek?', 'The Estuary in Evidence', 'licensing'],
  ['Pioneer zones', 'Saltmarsh Ecology of Northern Estuaries', 'saltmarsh'],
  ['Finding aids and lost boxes', 'Harbour Commissions and Their Papers', 'archive'],
  ['Injunctions against the tide', 'Water, Right and Remedy', 'licensing'],
];

export const CASES: [
  title: string,
  volume: string,
  page: string,
  court: string,
  year: number,
  month: number,
  day: number,
][] = [
  ['Harbour Commissioners v Penhallow Dredging Ltd', '2', '114', 'Court of Appeal of the Estuaries', 1987, 3, 12],
  ['Re Withy Sluice Licence', '4', '31', 'Tidal Works Tribunal', 1991, 6, 4],
  ['Sallow Oyster Fishery Association v Barrier Board', '7', '402', 'High Court of the Estuaries', 1998, 11, 20],
  ['Ottery v Northmere Drainage District', '1', '9', 'High Court of the Estuaries', 1976, 2, 17],
  ['Attorney for the Shore v Barrier Board (No 2)', '9', '77', 'Court of Appeal of the Estuaries', 2003, 5, 8],
  ['Ferrow Shipping Co v The Gatekeeper of Sallow', '3', '250', 'Admiralty Division', 1962, 10, 1],
  ['Marsh Conservators v Quay Estates Ltd', '11', '188', 'High Court of the Estuaries', 2009, 7, 14],
  ['In re the Undertaking of 1872', '12', '3', 'Court of Appeal of the Estuaries', 2014, 1, 30],
  ['Brackwater v Harbour Master of Sallow', '5', '66', 'Admiralty Division', 1969, 9, 9],
  ['Ex parte the Reed Cutters', '1', '121', 'King’s Bench of the Estuaries', 1911, 4, 25],
  ['Thornquay Rowing Club v Barrier Board', '14', '210', 'Tidal Works Tribunal', 2019, 12, 3],
  ['Wold v Wold Estates and the Drainage Commissioners', '6', '300', 'High Court of the Estuaries', 1983, 8, 22],
];

export const STATUTES: [title: string, chapter: string, year: number][] = [
  ['Sallow Harbour Act', 'c 14', 1868],
  ['Tidal Works (Licensing) Act', 'c 31', 1961],
  ['Drainage and Navigation Act', 'c 9', 1934],
  ['Barrier Board (Constitution) Act', 'c 22', 1974],
  ['Saltmarsh Protection Act', 'c 40', 1995],
  ['Notice of Closure Regulations', 'r 118', 1976],
];

export const LETTERS: [
  title: string,
  from: [string, string],
  to: string,
  folder: number,
  year: number,
  month: number,
  day: number,
][] = [
  [
    'Letter to the Harbour Commission on the spring closure',
    ['Ephraim', 'Okonjo-Reed'],
    'the Secretary',
    15,
    1872,
    2,
    18,
  ],
  [
    'Letter promising that the gate be not shut upon the ebb',
    ['Josiah', 'Penhallow'],
    'the Fishermen of Sallow Quay',
    15,
    1872,
    3,
    2,
  ],
  ['Memorial of the reed cutters', ['Hester', 'Wold'], 'the Harbour Commission', 16, 1871, 11, 9],
  ['Report of the gatekeeper on the November surge', ['Amos', 'Ottery'], 'the Secretary', 16, 1871, 11, 30],
  ['Draft minute on the undertaking', ['Josiah', 'Penhallow'], 'file', 17, 1872, 3, 1],
  ['Letter of complaint on silting at the quay', ['Matthias', 'Ferrow'], 'the Commissioners', 17, 1873, 6, 21],
  ['Account of dues remitted for vessels delayed', ['Amos', 'Ottery'], 'the Treasurer', 18, 1873, 1, 14],
  ['Letter enclosing a tide table', ['Lavinia', 'Saltholm'], 'the Gatekeeper', 18, 1874, 5, 5],
];

export const PAGES: [title: string, site: string, year: number, month: number, day: number][] = [
  ['Closure log, live', 'Barrier Board of Sallow', 2026, 2, 27],
  ['How we decide to close', 'Barrier Board of Sallow', 2025, 11, 3],
  ['Marsh restoration at Withy Reach', 'Estuary Trust', 2024, 6, 18],
  ['Minutes of the Commission, transcribed', 'Sallow Quay Archive Society', 2021, 9, 1],
  ['Tide gauge data: terms of use', 'Northmere Hydrographic Office', 2026, 1, 12],
  ['Glossary of tidal works', 'Estuary Trust', 2023, 3, 30],
];

export const REPORTS: [title: string, theme: Theme][] = [
  ['Annual gauge report 1988', 'operators'],
  ['Annual gauge report 1989', 'operators'],
  ['Annual gauge report 1990', 'operators'],
  ['Review of closure procedures', 'operators'],
  ['Saltmarsh condition survey', 'saltmarsh'],
  ['Historical licences: a catalogue', 'licensing'],
  ['Inquiry bundle: statements of the operators', 'operators'],
];

export const THESES: [title: string, theme: Theme][] = [
  ['Tidal restriction and the ecology of creeks', 'saltmarsh'],
  ['The administrative imagination of harbour commissions, 1840–1900', 'archive'],
  ['Discretion and duty in the licensing of tidal works', 'licensing'],
];

export const TAGS: Record<Theme, string[]> = {
  licensing: ['operator duty', 'navigation rights', 'used', 'superseded', 'adverse'],
  saltmarsh: ['sediment budget', 'field data', 'used', 'check again'],
  archive: ['primary', 'promise of 1872', 'check again'],
  operators: ['forecasting', 'operator duty', 'used'],
};
export const SUBJECTS: Record<Theme, string[]> = {
  licensing: ['Flood control', 'Administrative law', 'Licences'],
  saltmarsh: ['Estuaries', 'Sedimentation', 'Saltmarsh'],
  archive: ['Harbours—History', 'Archives'],
  operators: ['Flood control', 'Hydraulic structures', 'Tides'],
};

/** Sentences a document of each theme is made of. */
export const SENTENCES: Record<Theme | 'any', string[]> = {
  licensing: [
    'Between 1961 and 2009 the Board granted forty-one licences for barriers across tidal channels.',
    'None of those granted before 1974 says who must close the gate, or when.',
    'The silence was noticed at once by the navigation interests, who read into it a duty to keep the channel open, and by the drainage districts, who read into it the reverse.',
    'Six licences name an hour of closure relative to predicted high water; eleven name a level at the gauge; the remainder name neither.',
    'The licence for a tidal barrier says nothing of who must close it; the court supplied the answer from the law of obstruction.',
    'It may be said that the operator’s discretion was understood, but no minute or letter of the period supports that understanding.',
    'A tidal barrier raised without notice is an obstruction like any other, and the burden lies on the undertaker to show its authority.',
    'The duty to give notice is owed to every vessel lawfully in the channel, whether or not it is known to the harbour master.',
    'On the wording alone, a late closure is nobody’s breach.',
    'The tribunal declined to imply a term where the parties had plainly left the matter open.',
  ],
  saltmarsh: [
    'Marsh surfaces upstream of the barrier accreted at less than half the rate measured at the open reference sites.',
    'Sediment starvation follows from the loss of the highest tides, which carry most of the suspended load onto the marsh platform.',
    'We sampled forty quadrats along eight transects in each of three seasons.',
    'The pioneer zone retreated by eleven metres in the decade after the first winter of permanent closure.',
    'Accretion was measured against marker horizons laid down before the barrier was commissioned.',
    'Creek cross-sections narrowed where the tidal prism was reduced, and banks that had been vertical slumped.',
    'The saltmarsh lost elevation relative to the tide frame in every year in which closures exceeded thirty.',
    'Plant cover declined first in the hollows, where drainage after closure was slowest.',
    'These results do not show that closure alone is the cause; a falling sediment supply from the catchment acts in the same direction.',
  ],
  archive: [
    'The Commission resolved that the gate be not shut upon the ebb save by order of the harbour master in writing.',
    'The letter is in a clerk’s hand, with a marginal note in the Secretary’s own.',
    'Nothing in the minute book explains why the undertaking was never entered.',
    'The fishermen were promised, in the presence of two Commissioners, that no closure would be made without three tides’ notice.',
    'Box 4 was weeded in 1931, and the correspondence of the autumn of 1872 survives only in copies.',
    'The memorial is signed by thirty-one persons, nine of them by mark.',
    'A tide table is enclosed, corrected in red for the new datum.',
  ],
  operators: [
    'The decision to close is taken by the duty operator on a forecast that is at best nine hours old.',
    'Where a level is named it is, in nine cases of eleven, a level which the gauge then installed could not record.',
    'Night closures took on average fourteen minutes longer than closures by day.',
    'The control room log shows that on three occasions the gate was ordered shut after the level had been passed.',
    'A rule that waits for certainty closes too late; a rule that closes at every warning spends the marsh.',
    'Operators described the tidal barrier as a thing one closes with the whole town listening.',
    'Ensemble forecasts reduced false closures by a third without one missed surge.',
  ],
  any: [
    'The question matters because the cost of a closure falls on those who have no part in ordering it.',
    'The evidence is thinner than the confidence with which it has been cited.',
    'We return to this point below.',
    'The Sallow is a small estuary, but the pattern is found in others of its kind.',
    'Two readings are possible, and the sources allow both.',
    'What follows is an attempt to state the position as the inquiry will have to find it.',
  ],
};
