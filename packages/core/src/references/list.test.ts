/** The list a document ends with. */
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { listedReferences, MOST_REFERENCES } from './index.ts';

const PROSE = 'The keeper shut the gate at dusk, as the Commission had ordered (see Vance 2001).\nNobody came.';
const A = 'Vance, I. (2001). Accretion behind the gate. Coastal Processes, 12(3), 11–29.';
const B = 'Okonjo, M., & Tregenza, P. (2014). Who closes the gate? Journal of Water and Shore Law, 22(3), 201–229.';
const titles = (pages: string[]): [string | undefined, number][] =>
  listedReferences(pages).map((r) => [r.record.title, r.page]);

test.each(['References', 'REFERENCES', '7. References', 'Bibliography', 'Works cited', 'Literaturverzeichnis', 'Références'])(
  'under “%s” each entry is read, with the page it begins on',
  (heading) => {
    expect(titles([PROSE, `${PROSE}\n${heading}\n${A}`, `${B}\n`])).toEqual([
      ['Accretion behind the gate', 2],
      ['Who closes the gate?', 3],
    ]);
  },
); // prettier-ignore

test('an entry that runs over a page is one, without the running title and the number between', () => {
  const head = 'Vance · Accretion behind the gate';
  const [first, second] = [A.slice(0, 50), A.slice(50)];
  const pages = [`${head}\n${PROSE}\n1`, `${head}\nReferences\n${B}\n${first}\n2`, `${head}\n${second}\n3`];
  expect(titles(pages)).toEqual([['Who closes the gate?', 2], ['Accretion behind the gate', 2]]); // prettier-ignore
});

test('what follows the list is none of it, and a list of each chapter is read', () => {
  expect(titles([`References\n${A}\nAppendix A: Tables\nQuill, T. (1999). Not of the list. Northmere: Tern.`])).toEqual([['Accretion behind the gate', 1]]); // prettier-ignore
  expect(titles([`${PROSE}\nReferences\n${A}`, PROSE, `${PROSE}\nReferences\n${B}`]).length).toBe(2);
});

test('without a heading there is no list: prose that speaks of references is none', () => {
  expect(titles([`${PROSE}\nReferences to the minute of 1872 are many.\n${A}`])).toEqual([]);
});

test('whatever the pages hold, it ends, and no more than so many are told', () => {
  const line = fc.oneof(fc.constantFrom('References', 'Appendix', A, B, '12', PROSE), fc.string({ maxLength: 60 }));
  fc.assert(
    fc.property(fc.array(fc.array(line, { maxLength: 12 }), { maxLength: 6 }), (pages) => {
      const found = listedReferences(pages.map((p) => p.join('\n')));
      expect(found.length).toBeLessThanOrEqual(MOST_REFERENCES);
      for (const { page } of found) expect(page >= 1 && page <= pages.length).toBe(true);
    }),
  );
});
