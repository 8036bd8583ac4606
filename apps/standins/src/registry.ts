/**
 * A registry of DOIs. It answers as registration agencies do: by content negotiation on the DOI's address (ISO 26324,
 * DOI Handbook, "Content negotiation"), with CSL-JSON where that is asked for, else with a short page.
 */
import { REGISTERED } from '@pandecta/demo/registered';

const CSL_JSON = 'application/vnd.citationstyles.csl+json';

export function resolveDoi(doi: string, accept: string): { status: number; type: string; body: string } {
  const item = REGISTERED.get(doi.toLowerCase());
  if (!item) return { status: 404, type: 'text/plain', body: 'DOI not found\n' };
  if (accept.includes(CSL_JSON)) return { status: 200, type: CSL_JSON, body: JSON.stringify(item) };
  return { status: 200, type: 'text/plain', body: `${String(item.title)}\n` };
}
