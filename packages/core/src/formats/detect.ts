/** Finds the format of a file from what is in it; the name of a file is never asked. */
export type Format = 'ris' | 'bibtex' | 'csl-json' | 'pdf';

export function isPdf(bytes: Uint8Array): boolean {
  // ISO 32000-1, 7.5.2 puts the header first; readers take it within the first 1024 bytes (annex H, note 13).
  const head = String.fromCharCode(...bytes.subarray(0, 1024));
  return head.includes('%PDF-');
}

/** The format of a text, or undefined when nothing in it looks like one of ours. */
export function detectFormat(text: string): Exclude<Format, 'pdf'> | undefined {
  const start = text.slice(0, 200_000);
  if (/^\s*[[{]/.test(start) && /"[\w-]+"\s*:|^\s*\[\s*\]?/.test(start)) return 'csl-json';
  if (/^[ \t\uFEFF]*TY {1,2}- ?\S/m.test(start)) return 'ris';
  if (/^[ \t\uFEFF]*@\s*[A-Za-z]+\s*[{(]/m.test(start)) return 'bibtex';
  if (/@\s*(article|book|misc|incollection|inproceedings|online|report|thesis)\s*[{(]/i.test(start)) return 'bibtex';
  if (/^[A-Z][A-Z0-9] {1,2}- /m.test(start)) return 'ris';
  return undefined;
}
