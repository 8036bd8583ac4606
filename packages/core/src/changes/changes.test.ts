import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { anyChance, drawChange, drawFrom, smallLibrary, testId } from '../testing/index.ts';
import {
  applyChange,
  CHANGE_KINDS,
  Conflict,
  describe as says,
  fromJson,
  invert,
  joined,
  isEmpty,
  NotAChange,
  ownerOf,
  toJson,
  touches,
  yieldTo,
  type Change,
  type Library,
} from './index.ts';

const [ME, OTHER] = [testId(91), testId(92)];
const keyOf = ({ kind, id }: { kind: string; id: string }): string => `${kind} ${id}`;

/** What became of a change: as far as it was carried out, nothing, or the conflict that stopped it. */
function attempt(library: Library, change: Change): Change | null | Conflict {
  try {
    return applyChange(library, change);
  } catch (error) {
    if (error instanceof Conflict) return error;
    throw error;
  }
}

describe.each(CHANGE_KINDS)('any change of the kind “%s”', (kind) => {
  const property = (check: (library: Library, change: Change) => void): void =>
    fc.assert(
      fc.property(anyChance, (chance) => {
        const draw = drawFrom(chance);
        const library = smallLibrary();
        for (let i = 0; i < 3; i += 1) attempt(library, drawChange(draw(library, ME)));
        check(library, drawChange(draw(library, ME), kind));
      }),
    );

  test('inverted twice is itself, touches the same, and has a sentence', () => {
    property((_, change) => {
      const back = invert(change);
      expect(invert(back)).toEqual(change);
      expect(new Set(touches(back).map(keyOf))).toEqual(new Set(touches(change).map(keyOf)));
      expect(new Set(touches(change).map(keyOf)).size).toBe(touches(change).length);
      expect(says(change)).toEqual(expect.any(String));
    });
  });

  test('survives being stored, and is refused with a field missing', () => {
    property((_, change) => {
      const json = JSON.parse(JSON.stringify(toJson(change))) as Record<string, unknown>;
      expect(fromJson(json, { by: OTHER })).toEqual(change);
      // Whose it is stands only with what is a member's own.
      for (const field of Object.keys(json).filter((f) => !['v', 'member', 'own'].includes(f))) {
        const { [field]: _left, ...rest } = json;
        expect(() => fromJson(rest, { by: OTHER })).toThrow(NotAChange);
      }
    });
  });

  test('taken back at once leaves what was there before, and what it did not alter is not in it', () => {
    property((library, change) => {
      const before = structuredClone(library);
      const done = attempt(library, change);
      if (done instanceof Conflict) return;
      if (!done) return expect(stripped(library)).toEqual(stripped(before));
      expect(isEmpty(done)).toBe(false);
      expect(stripped(library)).not.toEqual(stripped(before));
      expect(applyChange(library, invert(done))).toEqual(invert(done));
      expect(stripped(library)).toEqual(stripped(before));
    });
  });
});

test.each(['edit', 'mark-edit', 'collection-edit'] as const)(
  'two of the kind “%s” joined as one do what both did, and taken back leave what was there before both',
  (kind) => {
    let joins = 0;
    fc.assert(
      fc.property(anyChance, anyChance, (first, second) => {
        const before = smallLibrary();
        const library = structuredClone(before);
        const a = attempt(library, drawChange(drawFrom(first)(library, ME), kind));
        const b = attempt(library, drawChange(drawFrom(second)(library, ME), kind));
        if (!a || a instanceof Conflict || !b || b instanceof Conflict) return;
        const both = joined(a, b);
        if (!both) return;
        joins += 1;
        const once = structuredClone(before);
        applyChange(once, both);
        expect(once).toEqual(library);
        applyChange(once, invert(both));
        expect(once).toEqual(before);
      }),
      { numRuns: 4_000 },
    );
    expect(joins).toBeGreaterThan(20);
  },
);

test('changes of different things, and edits that do not follow each other, are not joined', () => {
  const edit = (source: string, before: string, after: string, field = 'title'): Change => ({
    do: 'edit',
    source,
    fields: { [field]: { before, after } },
  });
  expect(joined(edit('a', 'One', 'Two'), edit('a', 'Two', 'Three'))).toEqual(edit('a', 'One', 'Three'));
  const star: Change = { do: 'star', member: ME, sources: ['a'], present: true };
  for (const later of [
    edit('b', 'Two', 'Three'),
    edit('a', 'Two', 'Three', 'note'),
    edit('a', 'Seen elsewhere', 'Three'),
    edit('a', 'Two', 'One'),
    star,
  ])
    expect(joined(edit('a', 'One', 'Two'), later)).toBeNull();
});

test('what another did since stands when a change of any kind is taken back, or that is refused', () => {
  const met = new Map<string, number>();
  fc.assert(
    fc.property(anyChance, fc.constantFrom(...CHANGE_KINDS), ({ numbers, texts }, kind) => {
      const draw = drawFrom({ numbers, texts });
      const library = smallLibrary();
      const mine = attempt(library, drawChange(draw(library, ME), kind));
      if (!mine || mine instanceof Conflict) return;
      const theirs = attempt(library, drawChange(draw(library, OTHER)));
      if (!theirs || theirs instanceof Conflict) return;
      const back = attempt(structuredClone(library), invert(mine));
      met.set(kind, (met.get(kind) ?? 0) + 1);
      if (back instanceof Conflict || !back) return;
      applyChange(library, back);
      // What stands need not be done again.
      const again = attempt(library, theirs);
      if (again !== null && !(again instanceof Conflict)) expect([mine, theirs, again]).toBe('as it stood');
    }),
    { numRuns: 5_000 },
  );
  expect([...met.keys()].sort()).toEqual([...CHANGE_KINDS].sort());
});

/** The library without what only remembers that something once was there. */
function stripped(library: Library): unknown {
  const present = <T extends { present: boolean }>(all: Map<string, T>): [string, T][] =>
    [...all].filter(([, x]) => x.present);
  return {
    ...library,
    collections: present(library.collections),
    placements: present(library.placements),
    members: [...library.members].filter(([, own]) => own.reading.size + own.stars.size),
  };
}

describe('what someone else did since is not taken back in silence', () => {
  const source = testId(1);

  test('a field, a name, a gloss: the conflict says what was, what would be and what is', () => {
    const library = smallLibrary();
    const first = applyChange(library, {
      do: 'collection-edit',
      collection: testId(41),
      called: 'Chapter 1',
      fields: { name: { before: 'Chapter 1', after: 'Licences' } },
    })!;
    const name = { before: 'Licences', after: 'Permits' };
    applyChange(library, { do: 'collection-edit', collection: testId(41), called: 'Licences', fields: { name } });
    expect(attempt(library, invert(first))).toMatchObject({
      subject: { kind: 'collection', id: testId(41) },
      moved: [{ before: 'Licences', after: 'Chapter 1', now: 'Permits' }],
    });
    const fields = { title: { before: 'Ebb', after: 'Flood' } };
    expect(attempt(library, { do: 'edit', source, fields })).toMatchObject({
      moved: [{ field: 'title', now: 'Tides 1' }],
    });
    const gloss = { before: 'Mine', after: 'Ours' };
    expect(attempt(library, { do: 'mark-edit', mark: testId(61), source, fields: { gloss } })).toMatchObject({
      message: 'the gloss changed since then',
    });
  });

  test('a mark another removed does not come back', () => {
    const library = smallLibrary();
    const remove: Change = { do: 'mark', mark: testId(61), source, present: false };
    expect(applyChange(library, remove)).toEqual(remove);
    expect(applyChange(library, remove)).toBeNull();
  });

  test('the reading state of one member is nothing to another', () => {
    const library = smallLibrary();
    const mine: Change = { do: 'reading', member: ME, states: { [source]: { before: null, after: 'read' } } };
    expect(applyChange(library, mine)).toEqual(mine);
    expect(applyChange(library, { ...mine, member: OTHER })).not.toBeNull();
    expect([ownerOf(mine), ownerOf({ do: 'all', says: '', changes: [mine, { ...mine, member: OTHER }] })]).toEqual([
      ME,
      undefined,
    ]);
  });
});

test('a reading state stored when it was everyone’s is read as that of whoever set it', () => {
  const old = { do: 'reading', states: { [testId(1)]: { before: null, after: 'read' } } };
  expect(fromJson({ do: 'all', says: 'x', changes: [old] }, { by: OTHER })).toMatchObject({
    changes: [{ ...old, member: OTHER }],
  });
});

test('a rename stored when it was a kind of its own is read as an edit of the collection', () => {
  const old = { do: 'rename', collection: testId(41), name: { before: 'Chapter 1', after: 'Licences' } };
  expect(says(fromJson(old, { by: ME }))).toBe('Renamed Chapter 1 to Licences');
  expect(fromJson({ do: 'all', says: 'x', changes: [old] }, { by: ME })).toMatchObject({
    changes: [{ do: 'collection-edit', called: 'Chapter 1', fields: { name: old.name } }],
  });
});

test('a relation stored when it was only there or not is read as one of which nothing more is said', () => {
  const old = { do: 'relate', from: testId(1), to: testId(2), as: 'version of', present: true };
  expect(fromJson(old, { by: ME })).toMatchObject({ said: { before: null, after: { note: '', page: '' } } });
});

test('what is no change, or of a version not known here, is refused by name', () => {
  for (const json of [null, [], { do: 'melt' }, { do: '__proto__' }, { do: 'tag', v: 9 }, { do: 'all', says: '' }])
    expect(() => fromJson(json, { by: ME })).toThrow(NotAChange);
});

test('changes say what they did, and where', () => {
  expect(says({ do: 'file', collection: 'c', name: 'Chapter 2', sources: ['a', 'b'], present: false })).toBe(
    'Removed 2 sources from Chapter 2',
  );
  const fields = { title: { before: null, after: 'x' }, DOI: { before: null, after: 'y' } };
  expect(says({ do: 'edit', source: 'a', fields })).toBe('Changed title and DOI');
});

test('a change gives way to what moved: of an edit the other fields are left, of several the other changes', () => {
  const source = testId(1);
  const fields = { title: { before: 'Ebb', after: 'Flood' }, note: { before: null, after: 'Mine' } };
  const edit: Change = { do: 'edit', source, fields };
  const moved = (field: string) => new Conflict({ kind: 'source', id: source }, [{ what: field, field, before: 1, after: 2, now: 3 }]); // prettier-ignore
  expect(yieldTo(edit, moved('title'))).toEqual({ ...edit, fields: { note: fields.note } });
  const star: Change = { do: 'star', member: ME, sources: [source], present: true };
  const all: Change = { do: 'all', says: '', changes: [{ ...edit, fields: { title: fields.title } }, star] };
  expect(yieldTo(all, moved('title'))).toEqual({ ...all, changes: [star] });
  expect(yieldTo(edit, moved('publisher'))).toBeNull();
});
