/** A PDF as this browser is given it: with the session it has there. */

/** In bytes, as Pandecta takes it. */
const MOST = 30 * 1024 ** 2;

/** @returns it in base64; nothing where the address gives no PDF, or too large a one */
export async function pdfAt(address: string): Promise<string | undefined> {
  const response = await fetch(address, { credentials: 'include' }).catch(() => undefined);
  if (!response?.ok || Number(response.headers.get('content-length') ?? 0) > MOST) return undefined;
  const bytes = new Uint8Array(await response.arrayBuffer().catch(() => new ArrayBuffer(0)));
  const start = String.fromCharCode(...bytes.subarray(0, 1024));
  return start.includes('%PDF-') && bytes.length <= MOST ? inBase64(bytes) : undefined;
}

function inBase64(bytes: Uint8Array): string {
  const parts: string[] = [];
  // In pieces of a multiple of three bytes, so that they can be joined.
  for (let at = 0; at < bytes.length; at += 30_000)
    parts.push(btoa(String.fromCharCode(...bytes.subarray(at, at + 30_000))));
  return parts.join('');
}
