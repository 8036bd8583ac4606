/** What a kind of facet must say of itself: a thing by which sources are narrowed. Declared by the capability it belongs to. */
import type { SQL } from 'drizzle-orm';
import type { SortKey } from '@pandecta/contract';
import type { SubjectKind } from '@pandecta/core/changes';
import type { Db } from '../database/connect.ts';
import { Registry } from '../registry.ts';

export interface FacetKind {
  /** As it is asked for: "tag=…". */
  type: string;
  /** The heading under which it is offered, and how many of its values, the most frequent first. */
  offered?: { name: string; most: number };
  /** A source may have several, so that one asks for two at once; of others one of several is asked for. */
  many?: true;
  /** Each member has their own, and sees no one else's; or some of them are, beside those that are everyone's. */
  own?: true | 'some';
  /** What sources can be sorted by it as, and its keys from the first to the last. */
  levels?: { sort: SortKey; keys: string[] };
  /** What its keys are ids of. */
  subject?: SubjectKind;
  /** The names of values for a person, where they are not their keys. */
  names?(db: Db, workspaceId: string, keys: string[]): Promise<Map<string, string>>;
}

/** Of which sources facets are told: an expression for the workspace, and one for the array of their ids. */
export interface Chosen {
  workspace: SQL;
  ids: SQL;
}

/** Facets that are derived together. */
export interface Facets {
  kinds: FacetKind[];
  /** Selects (id, type, key) of the chosen sources; `chosen` has their (id, presence, kind). */
  pairs(of: Chosen): SQL;
}

/**
 * The types facets are kept under, for a member: of those that are each member's own, the member is part of it. Of those
 * of which some are, no source bears the same value under both.
 */
export const keptUnder = ({ type, own }: FacetKind, member: string): string[] =>
  own === 'some' ? [type, `${type} ${member}`] : [own ? `${type} ${member}` : type];

/** Names that are the same everywhere. */
export const fixedNames =
  (names: Record<string, string>): FacetKind['names'] =>
  async () =>
    new Map(Object.entries(names));

/** The facets of all capabilities, in the order the page offers them. */
export const FACETS = new Registry<Facets[]>('facets');

export const facetKinds = (): FacetKind[] => FACETS.all.flatMap((f) => f.kinds);

let byType: { of: Facets[]; kinds: Map<string, FacetKind> } | undefined;

export function facetKind(type: string): FacetKind | undefined {
  if (byType?.of !== FACETS.all) byType = { of: FACETS.all, kinds: new Map(facetKinds().map((k) => [k.type, k])) };
  return byType.kinds.get(type);
}
