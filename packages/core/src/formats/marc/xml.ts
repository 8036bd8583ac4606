/** MARCXML (the "slim" schema of the Library of Congress). */
import type { Entry, Item, Writable } from '../message.ts';
import { eachEntry } from '../xml/each.ts';
import { childrenOf, childOf, escapeXml, type Element } from '../xml/tree.ts';
import type { MarcField, MarcRecord } from './fields.ts';
import { readMarc } from './read.ts';
import { marcOf } from './write.ts';

export const eachMarcXml = (text: string): Iterable<Item> =>
  eachEntry(text, ['record'], (e) =>
    childOf(e, 'leader') || childOf(e, 'datafield') ? readMarc(marcFrom(e)) : undefined,
  );

export const marcFrom = (e: Element): MarcRecord => ({
  leader: childOf(e, 'leader')?.content.join('') ?? '',
  line: e.line,
  fields: [
    ...childrenOf(e, 'controlfield').map((c): MarcField => ({
      tag: c.attributes.tag ?? '',
      value: c.content.join(''),
    })),
    ...childrenOf(e, 'datafield').map((d): MarcField => ({
      tag: d.attributes.tag ?? '',
      indicators: `${d.attributes.ind1 ?? ' '}${d.attributes.ind2 ?? ' '}`,
      subfields: childrenOf(d, 'subfield').map((s) => [s.attributes.code ?? '', s.content.join('')]),
    })),
  ],
});

export const marcXmlOf = (source: Entry): string => xmlOf(marcOf(source));

export function* eachMarcXmlEntry(sources: Writable): Generator<string, void> {
  yield '<?xml version="1.0" encoding="UTF-8"?>\n<collection xmlns="http://www.loc.gov/MARC21/slim">\n';
  for (const s of sources) yield `${marcXmlOf(s)}\n`;
  yield '</collection>\n';
}

const xmlOf = ({ leader, fields }: MarcRecord): string =>
  `<record><leader>${escapeXml(leader)}</leader>${fields
    .map((f) =>
      f.value !== undefined
        ? `<controlfield tag="${f.tag}">${escapeXml(f.value)}</controlfield>`
        : `<datafield tag="${f.tag}" ind1="${f.indicators![0]}" ind2="${f.indicators![1]}">${f
            .subfields!.map(([c, v]) => `<subfield code="${c}">${escapeXml(v)}</subfield>`)
            .join('')}</datafield>`,
    )
    .join('')}</record>`;
