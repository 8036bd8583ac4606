/** Arbitrary records for property tests: every variable, with awkward text. Not part of the product. */
import fc from 'fast-check';
import {
  ALL_KINDS,
  DATE_VARIABLES,
  OWN_DATE_VARIABLES,
  NAME_VARIABLES,
  TEXT_VARIABLES,
  type DateValue,
  type Name,
  type SourceRecord,
} from '../source/index.ts';

const AWKWARD = [
  '{',
  '}',
  '\\',
  '$',
  '%',
  '&',
  '#',
  '_',
  '~',
  '^',
  '"',
  "'",
  '`',
  '@',
  ',',
  ';',
  ':',
  '=',
  '-',
  '–',
  'é',
  'ß',
  'Ż',
  '字',
  '🙂',
  '<i>',
  '</i>',
  ' and ',
  '\n',
  'TY  - ',
  'ER  - ',
  '\u00a0',
  '//',
  '10.5555/x',
];

export const anyText = fc
  .array(
    fc.oneof(
      fc.string({ minLength: 1, maxLength: 12 }),
      fc.constantFrom(...AWKWARD),
      fc.constantFrom('Tidal', 'barrier', 'of'),
    ),
    { minLength: 1, maxLength: 5 },
  )
  .map((parts) => parts.join(' ').trim())
  .filter((t) => t !== '');

const anyName: fc.Arbitrary<Name> = fc.oneof(
  fc.record({ literal: anyText }),
  fc
    .record({
      family: anyText,
      given: anyText,
      suffix: fc.option(fc.constantFrom('Jr.', 'III', 'x'), { nil: undefined }),
      'non-dropping-particle': fc.option(fc.constantFrom('van der', 'De', 'd'), { nil: undefined }),
    })
    .map(strip),
  fc.record({ family: anyText }),
);

const anyDate: fc.Arbitrary<DateValue> = fc.oneof(
  fc.record({ 'date-parts': fc.array(fc.tuple(fc.integer({ min: 1000, max: 2100 })), { minLength: 1, maxLength: 2 }) }),
  fc
    .record({
      'date-parts': fc.tuple(
        fc.tuple(
          fc.integer({ min: 1000, max: 2100 }),
          fc.integer({ min: 1, max: 12 }),
          fc.integer({ min: 1, max: 28 }),
        ),
      ),
      circa: fc.option(fc.constant(true), { nil: undefined }),
    })
    .map(strip),
  fc.record({ literal: anyText }),
  fc.record({ 'date-parts': fc.tuple(fc.tuple(fc.integer({ min: -3000, max: -1 }))) }),
  fc.record({ 'date-parts': fc.tuple(fc.tuple(fc.integer({ min: 1000, max: 2100 })), fc.constant<number[]>([0])) }),
  fc.record({
    'date-parts': fc.tuple(fc.tuple(fc.integer({ min: 1000, max: 2100 }))),
    season: fc.integer({ min: 1, max: 4 }),
  }),
  fc.constantFrom<DateValue>(
    { 'date-parts': [[1560], [1569]], edtf: '156X' },
    { 'date-parts': [[1667], [1668]], edtf: '[1667,1668]' },
    {
      'date-parts': [
        [2010, 7],
        [2019, 3],
      ],
      edtf: '2010-23/2019-21',
    },
  ),
);

function strip<T extends object>(value: T): T {
  return Object.fromEntries(Object.entries(value).filter(([, v]) => v !== undefined)) as T;
}

const fields = {
  ...Object.fromEntries(TEXT_VARIABLES.map((v) => [v, anyText])),
  ...Object.fromEntries(NAME_VARIABLES.map((v) => [v, fc.array(anyName, { minLength: 1, maxLength: 3 })])),
  ...Object.fromEntries([...DATE_VARIABLES, ...OWN_DATE_VARIABLES].map((v) => [v, anyDate])),
};

export const anyRecord: fc.Arbitrary<SourceRecord> = fc
  .tuple(fc.constantFrom(...ALL_KINDS), fc.subarray(Object.keys(fields), { maxLength: 9 }))
  .chain(([type, chosen]) =>
    fc
      .record(Object.fromEntries(chosen.map((k) => [k, (fields as Record<string, fc.Arbitrary<unknown>>)[k]!])))
      .map((rest) => ({ type, ...rest }) as SourceRecord),
  );

export const anySource = fc.record({ record: anyRecord, subjects: fc.uniqueArray(anyText, { maxLength: 3 }) });
