/** Which marks of a document are shown. */
import type { Quote } from './quote.ts';
import type { Shape } from './shapes.ts';

/** Of each sort those that are named, or all where none is. */
export interface MarkFilter {
  senses: string[];
  shapes: Shape[];
  people: string[];
  /** These words in the marked text or the gloss, capital or not. */
  words: string;
}

export const NO_FILTER: MarkFilter = { senses: [], shapes: [], people: [], words: '' };

export const isFiltered = ({ senses, shapes, people, words }: MarkFilter): boolean =>
  Boolean(senses.length || shapes.length || people.length || words.trim());

export function isShown(
  mark: { sense: string; shape: Shape; by: string; quote: Quote; gloss: string },
  { senses, shapes, people, words }: MarkFilter,
): boolean {
  const sought = words.trim().toLowerCase();
  return (
    (!senses.length || senses.includes(mark.sense)) &&
    (!shapes.length || shapes.includes(mark.shape)) &&
    (!people.length || people.includes(mark.by)) &&
    (!sought || `${mark.quote.exact}\n${mark.gloss}`.toLowerCase().includes(sought))
  );
}
