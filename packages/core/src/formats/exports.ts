/** What is written: the name, the end of a file's name, and its type (RFC 6838, as registered or commonly used). */
export const EXPORT_INFO = {
  ris: { name: 'RIS', extension: 'ris', mediaType: 'application/x-research-info-systems' },
  bibtex: { name: 'BibTeX', extension: 'bib', mediaType: 'application/x-bibtex' },
  biblatex: { name: 'BibLaTeX', extension: 'bib', mediaType: 'application/x-bibtex' },
  'csl-json': {
    name: 'CSL-JSON',
    extension: 'json',
    mediaType: 'application/vnd.citationstyles.csl+json',
  },
  'csl-yaml': { name: 'CSL-YAML', extension: 'yaml', mediaType: 'application/yaml' },
  mods: { name: 'MODS', extension: 'xml', mediaType: 'application/mods+xml' },
  marcxml: { name: 'MARCXML', extension: 'xml', mediaType: 'application/marcxml+xml' },
  marc: { name: 'MARC (ISO 2709)', extension: 'mrc', mediaType: 'application/marc' },
  medline: { name: 'MEDLINE', extension: 'nbib', mediaType: 'text/plain' },
  dc: { name: 'Dublin Core', extension: 'xml', mediaType: 'application/xml' },
  tei: { name: 'TEI', extension: 'xml', mediaType: 'application/tei+xml' },
  csv: { name: 'CSV', extension: 'csv', mediaType: 'text/csv' },
} as const satisfies Record<string, { name: string; extension: string; mediaType: string }>;
export type ExportFormat = keyof typeof EXPORT_INFO;
export const EXPORT_FORMATS = Object.keys(EXPORT_INFO) as ExportFormat[];
