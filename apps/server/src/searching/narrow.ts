/** What an answer may be narrowed by, with counts. */
import type { AskFacet, AskNarrow, Facet, FacetReply, FacetValue, NarrowReply } from '@pandecta/contract';
import { fold } from '@pandecta/core/words';
import { Refusal } from '../errors.ts';
import type { Caller } from '../access/principal.ts';
import { keptUnder, type FacetKind } from '../indexing/facet.ts';
import { facetKind, facetKinds } from '../indexing/facet.ts';
import { pairOf } from './facets.ts';
import { understand, type Question } from './match.ts';
import { asOne, namedFacets } from './named.ts';
import { ask, type Asking } from './store.ts';

type Offered = FacetKind & { offered: { name: string; most: number } };

const offeredKinds = (): Offered[] => facetKinds().filter((kind): kind is Offered => Boolean(kind.offered));

export async function narrow(
  to: Asking,
  caller: Caller,
  { facets: wanted, ...asked }: AskNarrow,
): Promise<NarrowReply> {
  const q = await understand(to.db, caller, asked);
  const kinds = wanted ? offeredKinds().filter((k) => wanted.includes(k.type)) : offeredKinds();
  // Of what a source has one value of, the others are offered as if none were chosen: one of several is asked for.
  const chosen = new Set((asked.include ?? []).map((f) => pairOf(f)[0]));
  const apart = kinds.filter((k) => !k.many && chosen.has(k.type));
  const { total, years, undated, values } = await counted(
    to,
    q,
    kinds.filter((k) => !apart.includes(k)),
  );
  for (const kind of apart) {
    const include = (asked.include ?? []).filter((f) => pairOf(f)[0] !== kind.type);
    const without = await understand(to.db, caller, { ...asked, include });
    for (const [type, of] of (await counted(to, without, [kind])).values) values.set(type, of);
  }
  return {
    total,
    years: years.map(([year, count]) => ({ year, count })),
    undated,
    offered: offeredKinds().map(({ type, offered: { name } }) => ({ type, name })),
    facets: kinds.map(({ type, offered: { name } }): Facet => ({ type, name, values: values.get(type) ?? [] })),
  };
}

/** So many values are told at once. */
const MOST_VALUES = 500;
/** More values than any kind of facet has. */
const ALL_VALUES = 1_000_000;

/** @throws Refusal where nothing is narrowed by such a kind of facet */
export async function allOfFacet(
  to: Asking,
  caller: Caller,
  { facet, within, ...asked }: AskFacet,
): Promise<FacetReply> {
  const kind = offeredKinds().find((k) => k.type === facet);
  if (!kind) throw new Refusal('invalid', `nothing is narrowed by “${facet}”`);
  const include = (asked.include ?? []).filter((f) => facetKind(facet)?.many || pairOf(f)[0] !== facet);
  const q = await understand(to.db, caller, { ...asked, include });
  const { values } = await counted(to, q, [{ ...kind, offered: { ...kind.offered, most: ALL_VALUES } }]);
  const letters = fold(within ?? '').trim();
  const all = (values.get(facet) ?? []).filter((v) => !letters || fold(v.name).includes(letters));
  return { values: all.slice(0, MOST_VALUES), inAll: all.length };
}

/** How many of the answer bear each value of these kinds, the most frequent first. */
async function counted(
  to: Asking,
  q: Question,
  kinds: Offered[],
): Promise<{ total: number; years: [number, number][]; undated: number; values: Map<string, FacetValue[]> }> {
  const { userId } = q.scope;
  const kept = kinds.map((kind) => keptUnder(kind, userId));
  const most = Object.fromEntries(kinds.flatMap((kind, i) => kept[i]!.map((type) => [type, kind.offered.most])));
  const { total, years, undated, facets } = await ask(to, q, { narrow: { most, years: q.anyYear } });
  const counts = new Map(facets.flatMap(([, of]) => of));
  const named = [...(await namedFacets(to.db, q.scope, [...counts.keys()]))];
  const values = kinds.map(({ type }, i): [string, FacetValue[]] => [
    type,
    asOne(
      named
        .filter(([, f]) => kept[i]!.includes(f.type))
        .map(([id, f]) => ({ key: f.key, name: f.name, count: counts.get(id)! })),
    )
      .values.sort((a, b) => b.count - a.count || a.name.localeCompare(b.name, 'en'))
      .slice(0, kinds[i]!.offered.most),
  ]);
  return { total, years, undated, values: new Map(values) };
}
