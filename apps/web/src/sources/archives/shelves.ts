/** Sources of archives put together as they lie there: archive, collection, box, folder. */
import type { ArchivedSource } from '@pandecta/contract';

export interface Shelf {
  name: string;
  /** Down the archive: its collections, their boxes, their folders. */
  shelves: Shelf[];
  /** What lies here and in no part of it. */
  sources: ArchivedSource[];
  pages: number;
  /** How many sources lie in it, and of how many there is a scan. */
  count: number;
  scanned: number;
}

/** "Box 9, folder 3" is folder 3 in box 9. */
const placesIn = (location: string): string[] =>
  location
    .split(/\s*[,;]\s*/)
    .map((place) => place.trim())
    .filter(Boolean)
    .map((place) => place[0]!.toUpperCase() + place.slice(1));

/** @param sources in the archives' order, in which they stay */
export function shelvesOf(sources: readonly ArchivedSource[]): Shelf[] {
  const root = shelf('');
  for (const source of sources) {
    const path = [source.archive || 'No archive named', source.collection, ...placesIn(source.location)].filter(
      Boolean,
    );
    let at = root;
    for (const name of path) {
      const last = at.shelves.find((s) => s.name === name);
      if (last) at = last;
      else {
        const next = shelf(name);
        at.shelves.push(next);
        at = next;
      }
      at.count += 1;
      at.pages += source.pages;
      at.scanned += source.pages ? 1 : 0;
    }
    at.sources.push(source);
  }
  return root.shelves;
}

const shelf = (name: string): Shelf => ({ name, shelves: [], sources: [], pages: 0, count: 0, scanned: 0 });
