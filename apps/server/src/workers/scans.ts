/** Proposals for words that were recognised unsurely, and the text of a document as hOCR. */
import { hocr as writeHocr, proposalFor, unpackWords, type HocrPage } from '@pandecta/core/documents';
import { englishWords } from '@pandecta/core/english';

/** A proposal for each word, or null. @param texts of pages of the same document */
export function proposals({ words, texts }: { words: string[]; texts: string[] }): (string | null)[] {
  const count = new Map<string, number>();
  for (const text of texts)
    for (const word of text.toLowerCase().match(/\p{L}{3,}/gu) ?? []) count.set(word, (count.get(word) ?? 0) + 1);
  const { isPlain } = englishWords();
  // Once may be the fault itself.
  const inDocument = (word: string): number => Math.max(0, (count.get(word) ?? 0) - 1);
  return words.map((word) => proposalFor(word, { inDocument, isPlain }) ?? null);
}

type Stored = Omit<HocrPage, 'words'> & { words: Uint8Array };

export const hocr = ({
  pages,
  title,
  language,
}: {
  pages: Stored[];
  title: string;
  language?: string | undefined;
}): string =>
  writeHocr(
    pages.map((p) => ({ ...p, words: unpackWords(p.words) })),
    title,
    language,
  );
