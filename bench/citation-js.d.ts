/** The little of the library that is measured. */
declare module '@citation-js/core' {
  export const plugins: { input: { chain(text: string, options: { generateGraph: boolean }): unknown[] } };
}
declare module '@citation-js/plugin-bibtex' {}
declare module '@citation-js/plugin-ris' {}
