import { expect, test } from 'vitest';
import type { ArchivedSource } from '@pandecta/contract';
import { shelvesOf } from './shelves.ts';

const source = (title: string, location: string, pages = 0, collection = 'Harbour papers'): ArchivedSource => ({
  id: title,
  title,
  archive: 'Quay Archive',
  collection,
  location,
  pages,
  taken: 0,
  sorted: 0,
});

test('sources lie in folders, folders in boxes, boxes in collections of an archive', () => {
  const [archive] = shelvesOf([
    source('a', 'Box 9, folder 3', 40),
    source('b', 'box 9, folder 4', 2),
    source('c', 'Box 9, folder 4'),
    source('d', 'Box 10'),
  ]);
  const [papers] = archive!.shelves;
  const [nine, ten] = papers!.shelves;
  expect([nine!.name, ten!.name, nine!.shelves.map((s) => s.name)]).toEqual([
    'Box 9',
    'Box 10',
    ['Folder 3', 'Folder 4'],
  ]);
  expect(nine).toMatchObject({ count: 3, scanned: 2, pages: 42, sources: [] });
  expect(nine!.shelves[1]!.sources.map((s) => s.title)).toEqual(['b', 'c']);
  expect(ten!.sources.map((s) => s.title)).toEqual(['d']);
});

test('what names no archive, collection or place stands under what it does name', () => {
  const [archive] = shelvesOf([{ ...source('a', '', 0, ''), archive: '' }]);
  expect(archive).toMatchObject({ name: 'No archive named', shelves: [], sources: [{ title: 'a' }] });
});
