/** A whole question in words, as it would stand in the ask line. */
import type { Ask } from '@pandecta/contract';
import { printQuery } from '@pandecta/core/query';
import { usePlaces } from '../../places/store.ts';
import { useNarrow } from '../narrow.ts';
import { wholeTree } from './whole.ts';

export function useWords(): (asked: Ask) => string {
  const places = usePlaces();
  const narrow = useNarrow();
  return (asked) =>
    printQuery(wholeTree(asked, (type, key) => (type === 'in' ? places.pathOf(key) : narrow.nameOf(type, key))));
}
