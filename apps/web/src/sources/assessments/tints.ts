/** The tints labels may have, each light enough for the ink of their letter, by day and by night. */
import type { Tint } from '@pandecta/contract';

const TINT: Record<Tint, string> = {
  verdigris: '#a9d6cd',
  ochre: '#ecc98a',
  madder: '#eeb0ab',
  plum: '#d9c2e6',
  slate: '#bccbd8',
  moss: '#c9d39b',
};

export const tintOf = (tint: string): string => TINT[tint as Tint] ?? TINT.slate;
