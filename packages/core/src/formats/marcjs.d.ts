/** What is used of marcjs, which comes without types. */
declare module 'marcjs' {
  interface Field {
    tag: string;
    subf: [code: string, value: string][];
  }
  interface Record {
    get(tag: string): Field[];
  }
  export const Marc: {
    parse(raw: string | Buffer, type: 'iso2709' | 'marcxml'): Record;
    format(record: Record, type: 'iso2709' | 'marcxml'): string;
  };
}
