/** The plain text of a formatted citation. */
const ENTITIES: Record<string, string> = { amp: '&', lt: '<', gt: '>', quot: '"', nbsp: '\u00A0', apos: "'" };

export function htmlToText(html: string): string {
  return html
    .replace(/<[^<>]+>/g, '')
    .replace(/&(?:#(\d+)|#x([0-9a-f]+)|(\w+));/gi, (all, dec?: string, hex?: string, name?: string) => {
      if (dec) return String.fromCodePoint(Number(dec));
      if (hex) return String.fromCodePoint(parseInt(hex, 16));
      return ENTITIES[name!.toLowerCase()] ?? all;
    })
    .trim();
}
