/** ISSN (ISO 3297), ORCID iD (ISO 27729), PMID and arXiv identifiers. */

/** The check character of the first seven digits of an ISSN (ISO 3297: modulus 11, weights 8 to 2). */
export function issnCheck(seven: string): string {
  const sum = [...seven].reduce((s, d, i) => s + Number(d) * (8 - i), 0);
  const check = (11 - (sum % 11)) % 11;
  return check === 10 ? 'X' : String(check);
}

/** The ISSN as NNNN-NNNC, or undefined when it is none or its check character is wrong. */
export function normaliseIssn(text: string): string | undefined {
  const m = /^\s*(?:e?issn:?\s*)?(\d{4})[-‐–\s]?(\d{3})([\dX])\s*$/i.exec(text);
  if (!m) return undefined;
  const [, a, b, c] = m;
  return issnCheck(a! + b!) === c!.toUpperCase() ? `${a}-${b}${c!.toUpperCase()}` : undefined;
}

/** The check character of the first fifteen digits of an ORCID iD (ISO 27729, ISO/IEC 7064 MOD 11-2). */
export function orcidCheck(fifteen: string): string {
  let total = 0;
  for (const d of fifteen) total = (total + Number(d)) * 2;
  const check = (12 - (total % 11)) % 11;
  return check === 10 ? 'X' : String(check);
}

/** The ORCID iD as 0000-0000-0000-000C, or undefined when it is none or its check character is wrong. */
export function normaliseOrcid(text: string): string | undefined {
  const m = /(?:^|\/)(\d{4})-?(\d{4})-?(\d{4})-?(\d{3})([\dX])$/i.exec(text.trim());
  if (!m) return undefined;
  const digits = m.slice(1, 5).join('');
  if (orcidCheck(digits) !== m[5]!.toUpperCase()) return undefined;
  return `${m[1]}-${m[2]}-${m[3]}-${m[4]}${m[5]!.toUpperCase()}`;
}

/** A PubMed identifier: one to eight digits, as announced by its own name, in an address of PubMed, or alone. */
export function normalisePmid(text: string): string | undefined {
  const m =
    /^\s*(?:pmid:?\s*)?0*([1-9]\d{0,7})\s*$/i.exec(text) ??
    /(?:\bpubmed\.ncbi\.nlm\.nih\.gov|\bncbi\.nlm\.nih\.gov\/pubmed)\/(?:\?term=)?0*([1-9]\d{0,7})\b/i.exec(text);
  return m?.[1];
}

/** An identifier of PubMed Central, PMC and digits, as announced by its own name, in an address, or alone. */
export function normalisePmcid(text: string): string | undefined {
  const m = /(?:^|^pmcid:?|\/)\s*(PMC\d{3,9})(?:\.\d+)?(?:\/\S*)?$/i.exec(text.trim());
  return m?.[1]!.toUpperCase();
}

/** arXiv identifiers, new (2101.00001) and old (hep-th/9901001), without their version. */
export function findArxivIds(text: string): string[] {
  const out = new Set<string>();
  const all = text.matchAll(
    /(?:arXiv:\s*|\barxiv\.org\/(?:abs|pdf|html)\/|10\.48550\/arxiv\.)(\d{4}\.\d{4,5}|[a-z-]+(?:\.[A-Z]{2})?\/\d{7})(?:v\d+)?/gi,
  );
  for (const m of all) out.add(m[1]!);
  return [...out];
}
