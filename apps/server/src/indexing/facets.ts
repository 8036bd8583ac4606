/** All kinds of facets, each from the capability it belongs to, in the order they are offered. */
import { findingFacets } from '../check/facets.ts';
import { fileFacets } from '../files/facets.ts';
import { intakeFacets } from '../intake/facets.ts';
import { ownFacets } from '../own/facets.ts';
import { placeFacets } from '../places/facets.ts';
import { comingFacets, peopleFacets, publishedFacets, sourceFacets } from '../sources/facets.ts';
import { stateFacets } from '../stating/facets.ts';
import { markFacets } from '../marks/facets.ts';
import { tagFacets } from '../tags/facets.ts';
import type { FacetKind, Facets } from './facet.ts';

export const FACETS: Facets[] = [
  sourceFacets,
  tagFacets,
  stateFacets,
  ownFacets,
  fileFacets,
  peopleFacets,
  placeFacets,
  publishedFacets,
  markFacets,
  comingFacets,
  findingFacets,
  intakeFacets,
];
export const FACET_KINDS: FacetKind[] = FACETS.flatMap((f) => f.kinds);

export const facetKind = (type: string): FacetKind | undefined => FACET_KINDS.find((k) => k.type === type);
