import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { OutlineNode } from '@pandecta/contract';
import { indented, movedBefore, outdented, rowsOf, shifted, without } from './tree.ts';

const { tree } = fc.letrec<{ tree: OutlineNode[]; node: OutlineNode }>((tie) => ({
  tree: fc.oneof({ depthSize: 'small' }, fc.constant<OutlineNode[]>([]), fc.array(tie('node'), { maxLength: 4 })),
  node: fc.record({ note: fc.uuid(), title: fc.string(), used: fc.boolean(), children: tie('tree') }),
}));
const notes = (nodes: OutlineNode[]): string[] => rowsOf(nodes).map((r) => r.node.note!).sort(); // prettier-ignore

test('whatever is moved, each note stands in the outline as often as before', () => {
  fc.assert(
    fc.property(tree, fc.nat(), fc.nat(), (nodes, a, b) => {
      const rows = rowsOf(nodes);
      if (!rows.length) return;
      const [from, to] = [rows[a % rows.length]!.path, rows[b % rows.length]!.path];
      for (const moved of [
        shifted(nodes, from, 1),
        shifted(nodes, from, -1),
        indented(nodes, from),
        outdented(nodes, from),
        movedBefore(nodes, from, to),
      ])
        // prettier-ignore
        expect(notes(moved)).toEqual(notes(nodes));
    }),
  );
});

test('a note goes below the one before it and back out again, and before another', () => {
  const n = (note: string, children: OutlineNode[] = []): OutlineNode => ({ note, title: '', used: false, children });
  const nodes = [n('a'), n('b', [n('c')]), n('d')];
  expect(indented(nodes, [1])).toEqual([n('a', [n('b', [n('c')])]), n('d')]);
  expect(outdented(nodes, [1, 0])).toEqual([n('a'), n('b'), n('c'), n('d')]);
  expect(movedBefore(nodes, [2], [0])).toEqual([n('d'), n('a'), n('b', [n('c')])]);
  expect(movedBefore(nodes, [1], [1, 0])).toBe(nodes);
  expect(without(nodes, [1])).toEqual([n('a'), n('d')]);
});
