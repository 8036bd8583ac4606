/** ISBNs after ISO 2108: ten digits with a modulus-11 check, or thirteen with the modulus-10 check of EAN-13. */

const digitsOf = (text: string): string => text.replace(/[\s\-‐‑‒–]/g, '').toUpperCase();

/** The check character of the first nine digits of an ISBN-10. */
export function isbn10Check(nine: string): string {
  const sum = [...nine].reduce((s, d, i) => s + Number(d) * (10 - i), 0);
  const check = (11 - (sum % 11)) % 11;
  return check === 10 ? 'X' : String(check);
}

/** The check digit of the first twelve digits of an ISBN-13. */
export function isbn13Check(twelve: string): string {
  const sum = [...twelve].reduce((s, d, i) => s + Number(d) * (i % 2 ? 3 : 1), 0);
  return String((10 - (sum % 10)) % 10);
}

/** The ISBN as thirteen digits, or undefined when the text is not an ISBN or its check digit is wrong. */
export function normaliseIsbn(text: string): string | undefined {
  const d = digitsOf(text.replace(/^\s*(?:urn:)?isbn(?:-1[03])?:?\s*/i, ''));
  if (/^\d{9}[\dX]$/.test(d)) {
    if (isbn10Check(d.slice(0, 9)) !== d[9]) return undefined;
    const twelve = `978${d.slice(0, 9)}`;
    return twelve + isbn13Check(twelve);
  }
  if (/^97[89]\d{10}$/.test(d)) return isbn13Check(d.slice(0, 12)) === d[12] ? d : undefined;
  return undefined;
}

/** All ISBNs in a text that are announced as such and whose check digit is right, as thirteen digits. */
export function findIsbns(text: string): string[] {
  const out = new Set<string>();
  for (const m of text.matchAll(/ISBN(?:-1[03])?:?\s*((?:97[89][\s\-‐‑–]?)?(?:\d[\s\-‐‑–]?){9}[\dX])/gi)) {
    const isbn = normaliseIsbn(m[1]!);
    if (isbn) out.add(isbn);
  }
  return [...out];
}
