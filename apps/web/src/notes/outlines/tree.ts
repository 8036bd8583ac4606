/** An outline as rows, and what moves them: each way gives another tree, and nothing of it is lost. */
import type { OutlineNode } from '@pandecta/contract';

export interface OutlineRow {
  node: OutlineNode;
  /** The places that lead to it from the top. */
  path: number[];
  depth: number;
}

export const rowsOf = (nodes: OutlineNode[], above: number[] = []): OutlineRow[] =>
  nodes.flatMap((node, i) => {
    const path = [...above, i];
    return [{ node, path, depth: above.length }, ...rowsOf(node.children, path)];
  });

export const notesIn = (nodes: OutlineNode[]): string[] => rowsOf(nodes).flatMap(({ node }) => node.note ?? []);

/** The siblings at a path, replaced by what is made of them. */
function at(
  nodes: OutlineNode[],
  path: number[],
  make: (siblings: OutlineNode[], i: number) => OutlineNode[],
): OutlineNode[] {
  const [first, ...rest] = path as [number, ...number[]];
  if (!rest.length) return make(nodes, first);
  return nodes.map((n, i) => (i === first ? { ...n, children: at(n.children, rest, make) } : n));
}
export const find = (nodes: OutlineNode[], path: number[]): OutlineNode | undefined =>
  path.reduce<OutlineNode | undefined>((n, i, k) => (k ? n?.children[i] : nodes[i]), undefined);

export const without = (nodes: OutlineNode[], path: number[]): OutlineNode[] =>
  at(nodes, path, (all, i) => all.filter((_, k) => k !== i));
export const altered = (nodes: OutlineNode[], path: number[], to: Partial<OutlineNode>): OutlineNode[] =>
  at(nodes, path, (all, i) => all.map((n, k) => (k === i ? { ...n, ...to } : n)));

/** Up or down among its siblings; the same tree where it is the first or last of them. */
export const shifted = (nodes: OutlineNode[], path: number[], by: 1 | -1): OutlineNode[] =>
  at(nodes, path, (all, i) => (all[i + by] ? all.with(i, all[i + by]!).with(i + by, all[i]!) : all));

/** Below the one before it. */
export function indented(nodes: OutlineNode[], path: number[]): OutlineNode[] {
  return at(nodes, path, (all, i) => {
    const [before, node] = [all[i - 1], all[i]!];
    if (!before) return all;
    return [...all.slice(0, i - 1), { ...before, children: [...before.children, node] }, ...all.slice(i + 1)];
  });
}

/** After the one it stands below. */
export function outdented(nodes: OutlineNode[], path: number[]): OutlineNode[] {
  const node = find(nodes, path);
  if (!node || path.length < 2) return nodes;
  const above = path.slice(0, -1);
  return at(without(nodes, path), above, (all, i) => [...all.slice(0, i + 1), node, ...all.slice(i + 1)]);
}

/** Before another; not within itself. */
export function movedBefore(nodes: OutlineNode[], from: number[], to: number[]): OutlineNode[] {
  const node = find(nodes, from);
  const target = find(nodes, to);
  if (!node || !target || from.every((p, i) => to[i] === p)) return nodes;
  // The target is found again by being the same object: taking the other out moves its path.
  const left = without(nodes, from);
  const path = rowsOf(left).find((r) => r.node === target)?.path ?? pathOf(left, target);
  return path ? at(left, path, (all, i) => [...all.slice(0, i), node, ...all.slice(i)]) : nodes;
}

/** Of one whose children changed, by its note and title. */
const pathOf = (nodes: OutlineNode[], { note, title }: OutlineNode): number[] | undefined =>
  rowsOf(nodes).find((r) => r.node.note === note && r.node.title === title)?.path;
