/** A run of big-endian int4, as PostgreSQL's int4send writes them. */
export function decodeInts(bytes: Uint8Array): Int32Array {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const out = new Int32Array(bytes.byteLength >> 2);
  for (let i = 0; i < out.length; i += 1) out[i] = view.getInt32(i * 4);
  return out;
}
