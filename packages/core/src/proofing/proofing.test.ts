import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { SourceRecord } from '../source/index.ts';
import { anySource } from '../testing/index.ts';
import { englishWords } from '../english/index.ts';
import { amongOf, mended, proof, ruleOf, RULES, sentenceCase, type View } from './index.ts';

const sound: SourceRecord = {
  type: 'article-journal',
  title: 'Sediment starvation behind closed barriers',
  author: [{ family: 'Vance', given: 'Solveig' }],
  'container-title': 'Coastal Processes',
  volume: '41',
  issue: '3',
  page: '311-328',
  DOI: '10.5555/cp.41',
  issued: { 'date-parts': [[2011]] },
};
/** As a style prints them that leaves titles as they are. */
const PRINTED = new Set(['title', 'author', 'container-title', 'volume', 'issue', 'page', 'DOI', 'issued', 'publisher', 'publisher-place', 'edition', 'URL', 'accessed', 'authority', 'number', 'editor']); // prettier-ignore
const found = (more: Partial<SourceRecord>, view: Partial<View> = {}) =>
  proof({ record: { ...sound, ...more }, thisYear: 2026, english: englishWords(), uses: PRINTED, ...view });

test('a sound record has no finding', () => {
  expect(found({})).toEqual([]);
});

describe('each fault is found by its rule, and mended where it can be', () => {
  test.each<[string, Partial<SourceRecord>, object | undefined]>([
    ['doi-form', { DOI: 'see 10.5555/cp.41 there' }, { DOI: '10.5555/cp.41' }],
    ['doi-as-address', { DOI: 'https://doi.org/10.5555/CP.41' }, { DOI: '10.5555/CP.41' }],
    ['check-digit', { ISSN: '1050-1241' }, undefined],
    ['body-as-person', { author: [{ given: 'Barrier Board of', family: 'Commission' }] }, { author: [{ literal: 'Barrier Board of Commission' }] }], // prettier-ignore
    [
      'person-as-body',
      { author: [{ literal: 'Vance, Solveig' }] },
      { author: [{ family: 'Vance', given: 'Solveig' }] },
    ],
    ['several-in-one-name', { author: [{ literal: 'Solveig Vance; Ren Ito' }] }, { author: [{ family: 'Vance', given: 'Solveig' }, { family: 'Ito', given: 'Ren' }] }], // prettier-ignore
    ['name-parts', { author: [{ family: 'Zande', given: 'Jan van der' }] }, { author: [{ family: 'Zande', given: 'Jan', 'non-dropping-particle': 'van der' }] }], // prettier-ignore
    ['year', { issued: { 'date-parts': [[2029]] } }, undefined],
    ['year', { issued: { 'date-parts': [[1198]] } }, undefined],
    ['pages', { page: '328-311' }, { page: '311-328' }],
    ['kind-fields', { type: 'webpage', URL: 'https://a.example', accessed: { 'date-parts': [[2020]] } }, { type: 'article-journal' }], // prettier-ignore
    ['mangled', { title: 'CafÃ© culture' }, { title: 'Café culture' }],
    ['markup', { title: 'Silt &amp; sand' }, { title: 'Silt & sand' }],
    [
      'markup',
      { title: '<jats:title>Silt of <em>Spartina</em> &amp; <i>Zostera</i></jats:title>' },
      { title: 'Silt of <i>Spartina</i> & <i>Zostera</i>' },
    ],
    ['stops-and-spaces', { title: 'Silt  and sand.' }, { title: 'Silt and sand' }],
    ['label-in-field', { page: 'pp. 311-328' }, { page: '311-328' }],
    ['volume-and-issue', { volume: '41(3)' }, { volume: '41', issue: '3' }],
    ['edition-words', { type: 'book', edition: 'Third edition' }, { edition: '3' }],
    ['place-in-publisher', { publisher: 'Sallow: Tern Press' }, { publisher: 'Tern Press', 'publisher-place': 'Sallow' }], // prettier-ignore
    ['title-capitals', { title: 'SILT BEHIND THE GATE' }, { title: 'Silt behind the gate' }],
    ['title-case', { title: 'Silt and Sand Behind the Great Gate' }, { title: 'Silt and sand behind the great gate' }],
    ['name-capitals', { author: [{ family: 'O’NEILL', given: 'Ada' }] }, { author: [{ family: 'O’Neill', given: 'Ada' }] }], // prettier-ignore
    ['law-parts', { type: 'legal_case', page: '114, 120', authority: 'Court', 'container-title': 'Est R' }, { page: '114' }], // prettier-ignore
    ['names-swapped', { author: [{ family: 'S. R.', given: 'Vance' }] }, { author: [{ family: 'Vance', given: 'S. R.' }] }], // prettier-ignore
    ['person-as-body', { author: [{ literal: 'S. R. Vance' }] }, { author: [{ family: 'Vance', given: 'S. R.' }] }],
    ['person-as-body', { author: [{ literal: 'Robert Vance' }] }, { author: [{ family: 'Vance', given: 'Robert' }] }],
    ['label-in-field', { issue: '#3' }, { issue: '3' }],
    ['label-in-field', { volume: 'v. 41' }, { volume: '41' }],
    ['volume-and-issue', { volume: '41:3', issue: undefined } as never, { volume: '41', issue: '3' }],
    ['edition-words', { type: 'book', edition: '2e éd.' }, { edition: '2' }],
    ['year', { type: 'book', issued: { 'date-parts': [[198]] } }, undefined],
    ['retracted', { title: 'RETRACTED: Silt behind the gate' }, undefined],
    ['quotation-marks', { title: 'The „gate“ and the silt' }, { title: 'The “gate” and the silt' }],
    ['other-script', { title: 'Приливы и отливы' }, undefined],
    ['no-identifier', { DOI: undefined } as never, undefined],
    ['missing-part', { volume: undefined, issue: undefined } as never, undefined],
  ])('%s', (rule, more, mend) => {
    const finding = found(more).find((f) => f.rule === rule)!;
    expect(finding).toBeDefined();
    expect(finding.severity).toBe(ruleOf(rule)!.severity);
    if (mend) expect(finding.mend).toEqual(mend);
    else expect(finding.mend).toBeUndefined();
  });
});

test('the language is missed where the style would write the words of the title great', () => {
  const title = 'Die Gezeiten und der Schlick im Vorland';
  const rules = (uses: Set<string>) => found({ title }, { uses }).map((f) => [f.rule, f.mend]);
  expect(rules(new Set([...PRINTED, 'title case']))).toEqual([['language-missing', { language: 'de' }]]);
  expect(rules(PRINTED)).toEqual([]);
  expect(found({ title, language: 'de' }, { uses: new Set(['title case']) })).toEqual([]);
});

describe('what files, other versions and the day tell', () => {
  const file = {
    name: 'a.pdf',
    state: 'text' as const,
    begins: `${sound.title} ${'The keeper shut the gate at dusk. '.repeat(20)}`,
  };
  const rulesOf = (more: Partial<SourceRecord>, view: Partial<View>) => found(more, view).map((f) => f.rule);

  test('a file of the work itself says nothing; one without text, damaged, or of another work does', () => {
    expect(rulesOf({}, { files: [file] })).toEqual([]);
    expect(rulesOf({}, { files: [{ ...file, state: 'image only', begins: '' }] })).toEqual(['file-text']);
    expect(rulesOf({}, { files: [{ ...file, state: 'damaged', begins: '' }] })).toEqual(['file-text']);
    expect(rulesOf({ title: 'Licences for dredging under older statutes' }, { files: [file] })).toEqual([
      'file-of-another',
    ]);
  });

  test('the DOI that stands in the file alone is taken over', () => {
    const files = [{ ...file, begins: `${file.begins} https://doi.org/10.5555/cp.41` }];
    const none = { DOI: undefined } as never;
    expect(found(none, { files }).find((f) => f.rule === 'doi-in-file')!.mend).toEqual({ DOI: '10.5555/cp.41' });
    const two = [{ ...file, begins: `${file.begins} 10.5555/cp.41 and 10.5555/other` }];
    expect(rulesOf(none, { files: two })).not.toContain('doi-in-file');
  });

  test('a preprint whose article is here is superseded; access that ends is told a month before', () => {
    expect(rulesOf({ type: 'article' }, { versions: [sound] })).toContain('newer-version');
    expect(rulesOf({}, { versions: [{ ...sound, type: 'article' }] })).toEqual([]);
    const until = { 'access-until': { 'date-parts': [[2026, 12, 20]] } } as Partial<SourceRecord>;
    expect(rulesOf(until, { today: '2026-11-28' })).toEqual(['access-ends']);
    expect(rulesOf(until, { today: '2026-10-28' })).toEqual([]);
  });
});

test('a journal abbreviated here is written as where it stands in full', () => {
  const full = { ...sound, 'container-title': 'Estuary and Marsh' };
  const among = amongOf([full, full, { ...sound, 'container-title': 'Est. Marsh' }]);
  const mend = (container: string) =>
    found({ 'container-title': container }, { among }).find((f) => f.rule === 'container-spelling')?.mend;
  expect(mend('Est. Marsh')).toEqual({ 'container-title': 'Estuary and Marsh' });
  expect(mend('Estuary and Marsh')).toBeUndefined();
});

test('what the style does not print is not missed', () => {
  const { volume: _, issue: __, ...record } = sound;
  const lacks = (uses: string[]): string[] => proof({ record, uses: new Set(uses) }).map((f) => f.field);
  expect(lacks(['volume', 'title'])).toEqual(['volume']);
  expect(lacks(['title'])).toEqual([]);
});

test('a style that writes titles great itself needs no other title', () => {
  const title = 'Silt and Sand Behind the Great Gate';
  expect(found({ title }, { uses: new Set(['title', 'title case']) })).toEqual([]);
});

test('other records tell a person’s full name and how a journal is written', () => {
  const among = amongOf([sound, sound, { ...sound, 'container-title': 'Coastal processes' }]);
  expect(
    found({ author: [{ family: 'Vance', given: 'S.' }], 'container-title': 'Coastal processes' }, { among }),
  ).toMatchObject([
    // prettier-ignore
    { rule: 'initials', mend: { author: [{ family: 'Vance', given: 'Solveig' }] } },
    { rule: 'container-spelling', mend: { 'container-title': 'Coastal Processes' } },
  ]);
  // Two people of the name: nobody can tell which is meant.
  const two = amongOf([sound, { ...sound, author: [{ family: 'Vance', given: 'Sten' }] }]);
  expect(found({ author: [{ family: 'Vance', given: 'S.' }] }, { among: two })).toEqual([]);
});

test('a person is written as most records write them, with accents where two ways are as usual', () => {
  const by = (family: string, given: string): SourceRecord => ({ ...sound, author: [{ family, given }] });
  const among = amongOf([by('Åkesson', 'Jørgen'), by('Akesson', 'Jorgen'), by('Quill', 'Ann-Marie'), by('Quill', 'Ann-Marie'), by('Quill', 'Ann Marie')]); // prettier-ignore
  const mend = (family: string, given: string): unknown =>
    found({ author: [{ family, given }] }, { among }).find((f) => f.rule === 'name-spelling')?.mend;
  expect(mend('Akesson', 'Jorgen')).toEqual({ author: [{ family: 'Åkesson', given: 'Jørgen' }] });
  expect(mend('Åkesson', 'Jørgen')).toBeUndefined();
  expect(mend('Quill', 'Ann Marie')).toEqual({ author: [{ family: 'Quill', given: 'Ann-Marie' }] });
  expect(mend('Quill', 'Ann-Marie')).toBeUndefined();
});

test('a year is held against its DOI and against what other records say of the volume', () => {
  const of = (year: number, volume: string, DOI?: string): SourceRecord => ({ ...sound, volume, issued: { 'date-parts': [[year]] }, ...(DOI && { DOI }) }); // prettier-ignore
  const among = amongOf([of(2011, '41'), of(2012, '42'), of(2014, '44'), of(2015, '45'), of(2021, '47')]);
  const rules = (record: SourceRecord): string[] => proof({ record, among }).map((f) => f.rule);
  expect(rules(of(2021, '47'))).toEqual(['year-of-volume']);
  expect(rules(of(2013, '43'))).toEqual([]);
  // Too few to tell.
  expect(proof({ record: of(2030, '47'), among: amongOf([of(2011, '41'), of(2012, '42')]) })).toEqual([]);
  expect(rules(of(2011, '41', '10.5555/cp.2016.41.3'))).toEqual(['year-in-doi']);
  expect(rules(of(2011, '41', '10.5555/cp.2012.41.3'))).toEqual([]);
  expect(rules(of(2011, '41', '10.5555/20161'))).toEqual([]);
});

test.each([
  ['THE ROLE OF DNA IN BRITISH HARBOURS', 'The role of dna in British harbours'],
  ['The Role of DNA and mRNA in British Harbours', 'The role of DNA and mRNA in British harbours'],
  ['World War II and the Tides of France', 'World War II and the tides of France'],
  ['Effects of pH on Silt: A Study of H2O', 'Effects of pH on silt: a study of H2O'],
  ['What Is Silt? An Inquiry', 'What is silt? An inquiry'],
  ['The <i>Spartina anglica</i> Question', 'The <i>Spartina anglica</i> question'],
])('%s in sentence case', (title, is) => {
  expect(sentenceCase(title)).toBe(is);
});

test.each([
  // Names no list of peoples and places has, and words beside them that are part of them.
  [
    'A Study of Hermann Zapf and the Stanford University Press',
    'A study of Hermann Zapf and the Stanford University Press',
  ],
  ['Sediments of the Zambezi River and the Bay of Bengal', 'Sediments of the Zambezi River and the Bay of Bengal'],
  ['The Spanish Civil War and the Chinese University', 'The Spanish Civil War and the Chinese university'],
  [
    'Flooding in North Carolina and Northern Marshes in May 1968',
    'Flooding in North Carolina and northern marshes in May 1968',
  ],
  ['What Children May Learn from Morphodynamics', 'What children may learn from morphodynamics'],
  ['The Diet of Zostera noltii Beds', 'The diet of Zostera noltii beds'],
  ['Meta-Analysis of John Brown’s Letters', 'Meta-analysis of John Brown’s letters'],
  ['THE LETTERS OF HERMANN BROWN FROM PRAGUE', 'The letters of Hermann Brown from Prague'],
])('%s in sentence case, with the words of English', (title, is) => {
  expect(sentenceCase(title, { english: englishWords() })).toBe(is);
});

test('an abstract tells the names in its own title', () => {
  const title = 'Silt and Sand Behind the Great Gate at Lower Reach';
  const abstract = 'We measured silt at Lower Reach in winter, and lower down in summer.';
  const mend = (more: object) => found({ title, ...more }).find((f) => f.rule === 'title-case')!.mend!.title;
  expect(mend({})).toBe('Silt and sand behind the great gate at lower reach');
  expect(mend({ abstract })).toBe('Silt and sand behind the great gate at lower Reach');
});

test('a name of two words makes a name of the second behind the first alone', () => {
  const at = (title: string) => ({ ...sound, title });
  const among = amongOf([at('Reed and salt at Mallow Creek'), at('How a creek fills with silt at Mallow')]);
  const title = 'THE CREEK AND MALLOW CREEK';
  expect(sentenceCase(title, { isProper: among.isProper })).toBe('The creek and Mallow Creek');
});

test('words of the workspace keep the form it lists', () => {
  expect(sentenceCase('THE SALLOW AND THE GATE', { keep: ['Sallow'] })).toBe('The Sallow and the gate');
});

describe('whatever a record holds', () => {
  test('no rule fails on it, and each finding names its rule, a field and a sentence', () => {
    fc.assert(
      fc.property(anySource, ({ record }) => {
        for (const f of proof({ record, among: amongOf([record]), thisYear: 2026 })) {
          expect(RULES.map((r) => r.id)).toContain(f.rule);
          expect(f.what.length).toBeGreaterThan(5);
          expect(f.sure).toBeGreaterThan(0);
        }
      }),
    );
  });

  test('what was mended is mended: a second time changes nothing', () => {
    fc.assert(
      fc.property(anySource, ({ record }) => {
        const once = mended({ record, thisYear: 2026 });
        expect(mended({ record: once, thisYear: 2026 })).toEqual(once);
      }),
    );
  });
});
