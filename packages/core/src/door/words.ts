import type { DoorPart, PartKind } from './apart.ts';
import { counted } from '../wording/index.ts';

const NAMES: Record<PartKind, [one: string, many: string]> = {
  records: ['file of records', 'files of records'],
  doi: ['DOI', 'DOIs'],
  isbn: ['ISBN', 'ISBNs'],
  pmid: ['PMID', 'PMIDs'],
  pmcid: ['PMCID', 'PMCIDs'],
  arxiv: ['arXiv identifier', 'arXiv identifiers'],
  issn: ['ISSN', 'ISSNs'],
  citation: ['citation of a case', 'citations of cases'],
  link: ['link', 'links'],
  reference: ['reference', 'references'],
  text: ['line of other text', 'lines of other text'],
};

/** What is seen, by kind: [{ says: "2 DOIs" }, { says: "1 ISBN", wrong: "check digit wrong: …" }]. */
export function seenInWords(parts: readonly DoorPart[]): { says: string; wrong?: string }[] {
  const groups = new Map<string, DoorPart[]>();
  for (const part of parts) {
    const key = `${part.kind} ${part.wrong ?? ''}`;
    groups.set(key, [...(groups.get(key) ?? []), part]);
  }
  return [...groups.values()].map((group) => {
    const { kind, wrong } = group[0]!;
    const says = counted(group.length, ...NAMES[kind]);
    return wrong ? { says, wrong } : { says };
  });
}
