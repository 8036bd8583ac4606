/** A record as protocols wrap it, in whichever schema it is. */
import { marcFrom, marcIdentifier, modsIdentifier, readDublinCore, readMarc, readMods } from '../formats/index.ts';
import { childOf, type Element } from '../formats/xml/tree.ts';
import type { SourceRecord } from '../source/index.ts';

/** @param around the element the record stands in */
export function schemaRecord(
  around: Element | undefined,
): { record: SourceRecord; subjects: string[]; accession?: string } | undefined {
  const mods = childOf(around, 'mods');
  if (mods) return told(readMods(mods), modsIdentifier(mods));
  const marc = childOf(around, 'record');
  if (marc) {
    const fields = marcFrom(marc);
    return told(readMarc(fields), marcIdentifier(fields));
  }
  const dc = childOf(around, 'dc') ?? childOf(around, 'qualifieddc');
  return dc && told(readDublinCore(dc), undefined);
}

const told = (
  { record, subjects }: { record: SourceRecord; subjects: string[] },
  accession: string | undefined,
): ReturnType<typeof schemaRecord> => ({ record, subjects, ...(accession && { accession }) });
