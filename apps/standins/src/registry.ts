/**
 * A registry of DOIs. It answers as registration agencies do: by content negotiation on the DOI's address (ISO 26324,
 * DOI Handbook, "Content negotiation"), with CSL-JSON where that is asked for, else with a short page.
 */
import { entriesOf } from '@pandecta/demo/catalogues';
import { REGISTERED } from '@pandecta/demo/registered';
import { toCslItem } from '@pandecta/core/formats';

const CSL_JSON = 'application/vnd.citationstyles.csl+json';

export function resolveDoi(doi: string, accept: string): { status: number; type: string; body: string } {
  const item = REGISTERED.get(doi.toLowerCase()) ?? fromWorks(doi.toLowerCase());
  if (!item) return { status: 404, type: 'text/plain', body: 'DOI not found\n' };
  if (accept.includes(CSL_JSON)) return { status: 200, type: CSL_JSON, body: JSON.stringify(item) };
  return { status: 200, type: 'text/plain', body: `${String(item.title)}\n` };
}

/** Works nobody of the inquiry has gathered yet are registered as the open registry has them. */
function fromWorks(doi: string): Record<string, unknown> | undefined {
  const entry = entriesOf('registry').find((e) => e.record.DOI?.toLowerCase() === doi);
  return entry && toCslItem({ record: entry.record, subjects: entry.subjects }, doi);
}
