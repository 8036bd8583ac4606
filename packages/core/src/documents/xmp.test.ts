import { describe, expect, test } from 'vitest';
import { withoutMarkup } from '../source/index.ts';
import { htmlToText } from '../citing/text.ts';
import { knownAs } from '../formats/index.ts';
import { personOf } from './people.ts';
import { readXmp } from './xmp.ts';

test('lists, entities and identifiers are read; elements without content or of longer names are passed over', () => {
  // In the shape of ISO 16684-1, 7.9 (alternatives and lists as rdf:Alt, rdf:Seq, rdf:Bag).
  const xmp = `<x:xmpmeta><rdf:Description><dc:titles>no</dc:titles><dc:title/>
    <dc:title><rdf:Alt><rdf:li xml:lang="x-default">Tides &amp; silt</rdf:li></rdf:Alt></dc:title>
    <dc:creator><rdf:Seq><rdf:li>In&#xE9;s Vance</rdf:li><rdf:li>Marit Okonjo</rdf:li></rdf:Seq></dc:creator>
    <dc:subject><rdf:Bag><rdf:li>gates</rdf:li><rdf:li> </rdf:li></rdf:Bag></dc:subject>
    <dc:identifier>doi:10.5555/x</dc:identifier><prism:doi>10.5555/y</prism:doi></rdf:Description></x:xmpmeta>`;
  expect(readXmp(xmp)).toEqual({
    titles: ['Tides & silt'],
    creators: ['Inés Vance', 'Marit Okonjo'],
    subjects: ['gates'],
    identifiers: ['10.5555/y', 'doi:10.5555/x'],
  });
});

describe('what was made to take long comes to an end', () => {
  const LENGTH = 400_000;
  const long = (piece: string): string => piece.repeat(Math.ceil(LENGTH / piece.length)).slice(0, LENGTH);
  const pieces = [
    '<dc:title>',
    '<dc:title ',
    '<dc:title/>',
    '<rdf:li>',
    '<dc:identifier> ',
    '<i ',
    '<',
    '(',
    '<article ',
    'a',
    'title',
    ' ',
  ];
  test.each(pieces)('of %j', (piece) => {
    const texts = [long(piece), `<dc:creator>${long(piece)}`, `${long(piece)}</dc:creator>`];
    const work = (text: string): void => {
      readXmp(text);
      withoutMarkup(text);
      htmlToText(text);
      personOf(text.slice(0, 20_000));
      knownAs(new Uint8Array(0), text);
    };
    // In quadratic time it would go on for many minutes, 400,000 squared being 160,000 million, and the test with it.
    texts.forEach(work);
  });
});
