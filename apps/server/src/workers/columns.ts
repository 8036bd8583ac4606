/** The columns of workspaces, held in a thread of their own: a cache that can be lost. */
import {
  Bits,
  Columns,
  countPairs,
  orderOf,
  matching,
  groupsOf,
  NO_YEAR,
  overlapsOf,
  Ranking,
  UNRANKED,
  type ColumnRows,
  type Condition,
  type GroupBy,
  type Pairs,
  type Placing,
  type Side,
  type SortBy,
} from '@pandecta/core/narrowing';
import type { Presence } from '@pandecta/core/changes';
import { decodeInts } from './bytes.ts';

/** Columns as PostgreSQL sends them: runs of big-endian values. */
export interface SentRows {
  numbers: Uint8Array;
  ids: Uint8Array;
  presences: Uint8Array;
  years: Uint8Array;
  added: Uint8Array;
  changed: Uint8Array;
  /** Arrays of int4 in the binary form of `array_send`. */
  facets: Uint8Array;
}

export interface ColumnsAsk {
  presence: Presence;
  condition: Condition;
  /** What the condition's sets hold: numbers as runs of int4, or the name of a set that is kept. */
  sets: (string | Uint8Array)[];
  /** A stretch of the sources in this order, after those that lead, as ids; and the place of one that is to be found. */
  page?: { sort: SortBy[]; group?: GroupBy; lead: number[]; from: number; count: number; find?: string };
  /** The first to be ranked: those of the set first, then any. */
  candidates?: { first: number; most: number };
  /** How many bear each of these facets. */
  count?: number[];
  /** How what these find overlaps. */
  overlaps?: Condition[];
  /** What goes together. */
  pairs?: { rows: Side; columns: Side };
  /** How often each facet occurs, the most frequent of each type; and how many there are of each year. */
  narrow?: { most: Record<string, number>; years: Condition };
}

export interface ColumnsAnswer {
  total: number;
  page: string[];
  /** Of each of the page, where groups were asked for: its facet or year, or null, and how many stand in its group. */
  groups: [of: number | null, count: number][];
  /** The place of the source to be found, or -1. */
  at: number;
  /** The first `titled` of them are of the set asked for first. */
  candidates: { numbers: number[]; ids: string[]; titled: number };
  facets: [type: string, counts: [facet: number, count: number][]][];
  years: [year: number, count: number][];
  undated: number;
  /** As many as were asked for, each in its place. */
  counts: number[];
  /** For each choice of what was asked to overlap, as bits, how many only those find. */
  overlaps?: number[];
  pairs?: Pairs;
}

export type ColumnsMessage = { workspace: string } & (
  | { do: 'begin' }
  | { do: 'drop' }
  | { do: 'learn'; facets: [number, string][] }
  | { do: 'write'; rows: SentRows; gone: number[] }
  | { do: 'rank'; name: string; numbers: Uint8Array; ranks: Uint8Array }
  | { do: 'place'; name: string; placings: Placing[]; gone: number[] }
  | { do: 'keep'; name: string; numbers: Uint8Array }
  | { do: 'amend'; name: string; numbers: number[]; members: number[] }
  | { do: 'let go'; name: string }
  | { do: 'ask'; ask: ColumnsAsk }
);

/** The columns of a workspace, and sets of words that are asked for often. */
interface Workspace {
  columns: Columns;
  sets: Map<string, Bits>;
}

const workspaces = new Map<string, Workspace>();

/**
 * @returns the answer to a question, or undefined; of a writing the facets it met for the first time; 'lost' when the
 * thread holds nothing of the workspace
 */
export function columns(message: ColumnsMessage): ColumnsAnswer | number[] | 'lost' | undefined {
  if (message.do === 'begin') workspaces.set(message.workspace, { columns: new Columns(), sets: new Map() });
  if (message.do === 'drop') workspaces.delete(message.workspace);
  const held = workspaces.get(message.workspace);
  if (!held) return message.do === 'drop' ? undefined : 'lost';
  const { columns, sets } = held;
  switch (message.do) {
    case 'learn':
      columns.learn(message.facets);
      return undefined;
    case 'write': {
      const met = columns.write(decodeRows(message.rows));
      columns.forget(message.gone);
      return met;
    }
    case 'rank':
      columns.rank(message.name, decodeRanks(message.numbers, message.ranks));
      return undefined;
    case 'place':
      columns.place(message.name, message.placings, message.gone);
      return undefined;
    case 'keep':
      sets.set(message.name, Bits.of(columns.size, decodeInts(message.numbers)));
      return undefined;
    case 'amend': {
      const kept = sets.get(message.name);
      if (!kept) return 'lost';
      sets.set(message.name, kept.amended(columns.size, message.numbers, message.members));
      return undefined;
    }
    case 'let go':
      sets.delete(message.name);
      return undefined;
    case 'ask': {
      const asked = message.ask.sets.map((s) => (typeof s === 'string' ? sets.get(s) : bitsOf(columns, s)));
      return asked.every((s) => s !== undefined) ? answer(columns, message.ask, asked) : 'lost';
    }
    default:
      return undefined;
  }
}

const bitsOf = (held: Columns, numbers: Uint8Array): Bits => Bits.of(held.size, decodeInts(numbers));

function answer(held: Columns, ask: ColumnsAsk, sets: Bits[]): ColumnsAnswer {
  const found = matching(held, ask.presence, ask.condition, sets);
  const out: ColumnsAnswer = {
    total: found.count,
    page: [],
    groups: [],
    at: -1,
    candidates: { numbers: [], ids: [], titled: 0 },
    facets: [],
    years: [],
    undated: 0,
    counts: [],
  };
  if (ask.page) Object.assign(out, pageOf(held, found, ask.page));
  if (ask.candidates) {
    const { first, most } = ask.candidates;
    const titled = found.and(sets[first]!);
    const numbers = [...titled.numbers(most)];
    const { length } = numbers;
    if (numbers.length < most) numbers.push(...found.without(titled).numbers(most - numbers.length));
    out.candidates = { numbers, ids: numbers.map((n) => uuid(held.idOf(n))), titled: length };
  }
  if (ask.count) {
    const counts = ask.count.map(() => 0);
    const tell = held.placing(ask.count);
    found.forEach((n) => tell(n, (place) => (counts[place]! += 1)));
    out.counts = counts;
  }
  if (ask.overlaps) out.overlaps = overlapsOf(ask.overlaps.map((part) => matching(held, ask.presence, part, sets)));
  if (ask.pairs) out.pairs = countPairs(held, found, ask.pairs.rows, ask.pairs.columns);
  if (ask.narrow) {
    out.facets = [...held.countFacets((each) => found.forEach(each), ask.narrow.most)];
    const years = new Map<number, number>();
    matching(held, ask.presence, ask.narrow.years, sets).forEach((n) => {
      const year = held.yearOf(n);
      if (year === NO_YEAR) out.undated += 1;
      else years.set(year, (years.get(year) ?? 0) + 1);
    });
    out.years = [...years].sort((a, b) => a[0] - b[0]);
  }
  return out;
}

function pageOf(
  held: Columns,
  found: Bits,
  { sort, group, lead, from, count, find }: NonNullable<ColumnsAsk['page']>,
): Pick<ColumnsAnswer, 'page' | 'groups' | 'at'> {
  const first = lead.filter((n) => found.has(n));
  const rest = first.length ? found.without(Bits.of(held.size, first)) : found;
  const numbers = first.slice(from, from + count);
  const groups = group && groupsOf(held, found, group);
  const order = orderOf(held, rest, groups ? [groups.by, ...sort] : sort);
  const wanted = from + count - first.length;
  if (wanted > 0) {
    const skip = Math.max(0, from - first.length);
    for (const n of order.stretch(skip, wanted - skip)) numbers.push(n);
  }
  let at = -1;
  const sought = find ? held.numberOf(bytesOf(find)) : -1;
  if (sought >= 0 && found.has(sought)) {
    const among = first.indexOf(sought);
    at = among >= 0 ? among : first.length + order.placeOf(sought);
  }
  return { page: numbers.map((n) => uuid(held.idOf(n))), groups: groups ? numbers.map(groups.of) : [], at };
}

const bytesOf = (id: string): Uint8Array =>
  Uint8Array.from(id.replaceAll('-', '').match(/../g)!, (hex) => parseInt(hex, 16));

const HEX = Array.from({ length: 256 }, (_, i) => i.toString(16).padStart(2, '0'));

function uuid(bytes: Uint8Array): string {
  let out = '';
  for (let i = 0; i < 16; i += 1) {
    if (i === 4 || i === 6 || i === 8 || i === 10) out += '-';
    out += HEX[bytes[i]!];
  }
  return out;
}

function decodeTimes(bytes: Uint8Array): Float64Array {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const out = new Float64Array(bytes.byteLength >> 3);
  // Times are well below 2^53 milliseconds: two halves make the number without big integers.
  for (let i = 0; i < out.length; i += 1) out[i] = view.getInt32(i * 8) * 2 ** 32 + view.getUint32(i * 8 + 4);
  return out;
}

function decodeRanks(numbers: Uint8Array, ranks: Uint8Array): Ranking {
  const at = decodeInts(numbers);
  const values = decodeInts(ranks);
  const out = new Int32Array(at.reduce((top, n) => Math.max(top, n + 1), 0)).fill(UNRANKED);
  at.forEach((n, i) => (out[n] = values[i]!));
  return new Ranking(
    out,
    values.reduce((top, r) => Math.max(top, r + 1), 0),
  );
}

function decodeRows(sent: SentRows): ColumnRows {
  const numbers = decodeInts(sent.numbers);
  return {
    numbers,
    ids: sent.ids,
    presences: Uint8Array.from(decodeInts(sent.presences)),
    years: decodeInts(sent.years),
    added: decodeTimes(sent.added),
    changed: decodeTimes(sent.changed),
    ...decodeArrays(sent.facets, numbers.length),
  };
}

/**
 * Arrays of int4, one after another: dimensions, a flag for nulls, the type's oid, length and lower bound of the one
 * dimension, then each element after its size (PostgreSQL 15, src/backend/utils/adt/arrayfuncs.c, array_send).
 */
function decodeArrays(bytes: Uint8Array, count: number): { starts: Int32Array; facets: Int32Array } {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const starts = new Int32Array(count + 1);
  const facets = new Int32Array(bytes.byteLength >> 3);
  let at = 0;
  let used = 0;
  for (let i = 0; i < count; i += 1) {
    const length = view.getInt32(at) === 0 ? 0 : view.getInt32(at + 12);
    at += length ? 20 : 12;
    for (let k = 0; k < length; k += 1, at += 8) facets[used++] = view.getInt32(at + 4);
    starts[i + 1] = used;
  }
  return { starts, facets: facets.subarray(0, used) };
}
