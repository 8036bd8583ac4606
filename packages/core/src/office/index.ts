import { paragraphsOfDocx } from './docx.ts';
import { paragraphsOfOdt } from './odt.ts';
import { partsOf, type PartsOf } from './parts.ts';

export type { PartsOf } from './parts.ts';
export type { Paragraph } from './paragraph.ts';
export { paragraphsOfDocx, paragraphsOfOdt, partsOf };
export { officeToHtml, textToHtml } from './readable.ts';

export const OFFICE = { docx: 'a DOCX document', odt: 'an ODT document' } as const;
export type OfficeFormat = keyof typeof OFFICE;

/** Which of these a file is, by the names its archive begins with. */
export function officeFormat(bytes: Uint8Array): OfficeFormat | undefined {
  const head = String.fromCharCode(...bytes.subarray(0, 200));
  if (!head.startsWith('PK\u0003\u0004')) return undefined;
  if (head.includes('mimetypeapplication/vnd.oasis.opendocument.text')) return 'odt';
  // The names of all its files stand at the end of an archive.
  const tail = new TextDecoder('latin1').decode(bytes.subarray(Math.max(0, bytes.length - 65_536)));
  return tail.includes('word/document.xml') ? 'docx' : undefined;
}

/** @throws Error with what is wrong with the document */
export function readOffice(bytes: Uint8Array, format: OfficeFormat): PartsOf {
  return partsOf(format === 'docx' ? paragraphsOfDocx(bytes) : paragraphsOfOdt(bytes));
}
