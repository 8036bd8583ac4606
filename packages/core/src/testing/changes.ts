/** Small workspaces and changes to them, for property tests here and in the server. */
import fc from 'fast-check';
import {
  CHANGE_KINDS,
  emptyLibrary,
  sampleOf,
  type Change,
  type ChangeKind,
  type Draw,
  type Library,
  type Term,
} from '../changes/index.ts';

/** Ids that read like those of the database, without chance or clock. */
export const testId = (n: number): string => `018f0000-0000-7000-8000-${n.toString(16).padStart(12, '0')}`;

/** What a property test hands to `drawFrom`: numbers and texts to choose by, as many as it needs of them. */
export interface Chance {
  numbers: number[];
  texts: string[];
}

export const anyChance: fc.Arbitrary<Chance> = fc.record({
  numbers: fc.array(fc.nat({ max: 1_000_000 }), { minLength: 50, maxLength: 50 }),
  texts: fc.array(fc.string({ maxLength: 12 }), { minLength: 7, maxLength: 7 }),
});

/** @returns how to draw the next thing, step by step as the library changes */
export function drawFrom({ numbers, texts }: Chance): (library: Library, member: string) => Draw {
  let at = 0;
  const number = (below: number): number => numbers[at++ % numbers.length]! % below;
  return (library, member) => ({
    library,
    member,
    flag: () => number(2) === 1,
    pick: (from) => from[number(from.length)]!,
    some(from) {
      const kept = from.filter(() => number(2) === 1);
      return kept.length ? kept : [from[number(from.length)]!];
    },
    text: () => texts[number(texts.length)]!,
    id: () => testId(1_000_000 + number(1_000_000)),
  });
}

/** The next change someone makes in this library: of this kind, or of any. */
export const drawChange = (draw: Draw, kind: ChangeKind = draw.pick(CHANGE_KINDS)): Change => sampleOf(kind)(draw);

/** Three sources, and one or two of everything that can be done to them. */
export function smallLibrary(): Library {
  const library = emptyLibrary();
  for (const n of [1, 2, 3])
    library.sources.set(testId(n), {
      record: { type: 'book', title: `Tides ${n}` },
      presence: 'live',
      tags: new Set(),
      collections: new Set(),
      files: new Set(),
      labels: new Set(),
    });
  const term = (name: string, subject: boolean): Term => ({
    name,
    subject,
    says: '',
    heading: '',
    broader: null,
  });
  library.tags.set(testId(11), term('Used', false)).set(testId(12), term('Silt', true));
  library.files.set(testId(21), { name: 'tides.pdf' });
  library.entries.set(`label ${testId(71)}`, { name: 'Key authority', owner: null });
  for (const n of [31, 32]) library.entries.set(`sense ${testId(n)}`, { name: `Sense ${n}`, owner: null });
  const nothingSaid = { says: null, until: null, rule: null, allows: null, owner: null };
  library.collections
    .set(testId(41), { name: 'Chapter 1', ...nothingSaid, present: true })
    .set(testId(42), { name: 'Chapter 2', ...nothingSaid, present: true });
  library.placements
    .set(testId(51), { collection: testId(41), parent: null, present: true })
    .set(testId(52), { collection: testId(42), parent: testId(41), present: true });
  for (const n of [61, 62])
    library.marks.set(testId(n), {
      source: testId(1),
      place: {
        file: testId(21),
        page: 1,
        quote: { exact: 'gate', prefix: 'the ', suffix: ' was' },
        rects: [{ x0: 10, y0: 10, x1: 40, y1: 20 }],
        unplaced: false,
      },
      gloss: '',
      sense: testId(31),
      shape: 'highlight',
      owner: null,
      present: n === 61,
    });
  library.glosses
    .set(testId(81), { source: testId(1), owner: null, text: 'Read it again', present: true })
    .set(testId(82), { source: testId(2), owner: null, text: '', present: false });
  const note = { text: { type: 'doc' }, event: null, about: [], tags: [], from: [], owner: null };
  library.notes
    .set(testId(91), { ...note, title: 'Who knew of it', present: true })
    .set(testId(92), { ...note, title: '', present: false });
  return library;
}
