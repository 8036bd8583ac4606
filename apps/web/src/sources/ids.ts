/** Sixteen bytes each, as the server sends them. */
export function readIds(bytes: Uint8Array): string[] {
  const hex: string[] = [];
  for (let i = 0; i < 256; i += 1) hex.push(i.toString(16).padStart(2, '0'));
  const out: string[] = new Array(bytes.length / 16);
  for (let i = 0, at = 0; at < bytes.length; i += 1, at += 16) {
    const h = (k: number): string => hex[bytes[at + k]!]!;
    out[i] =
      `${h(0)}${h(1)}${h(2)}${h(3)}-${h(4)}${h(5)}-${h(6)}${h(7)}-${h(8)}${h(9)}-${h(10)}${h(11)}${h(12)}${h(13)}${h(14)}${h(15)}`;
  }
  return out;
}
