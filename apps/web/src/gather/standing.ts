/** What is said of a line of the intake in a few words, the most urgent thing first. */
import type { IntakeRow } from '@pandecta/contract';
import { lacksInWords } from '@pandecta/core/intake';
import { counted } from '@pandecta/core/wording';

export interface Standing {
  says: string;
  tone: 'good' | 'caution' | 'left';
}

export function standingOf({
  unread,
  here,
  lookedUp,

  lacks,
  finds,
  files,
  twice,
  guessed,
}: IntakeRow): Standing {
  if (unread) return { says: 'left for you', tone: 'left' };
  if (here?.verdict === 'certain')
    return { says: `here already${here.places ? `, in ${counted(here.places, 'place')}` : ''}`, tone: 'caution' };
  if (here) return { says: `${here.verdict} here already`, tone: 'caution' };
  if (twice !== undefined) return { says: 'waits twice', tone: 'caution' };
  if (lookedUp === 'silent') return { says: 'nobody answered yet', tone: 'caution' };
  if (lookedUp === 'not found') return { says: 'not found', tone: 'left' };
  const missing = lacksInWords(lacks);
  if (missing) return { says: missing, tone: 'caution' };
  if (finds.length)
    return { says: finds.length === 1 ? small(finds[0]!) : counted(finds.length, 'finding'), tone: 'caution' };
  if (guessed.length) return { says: 'guessed in part', tone: 'caution' };
  return { says: `complete${files ? ' · file' : ''}`, tone: 'good' };
}

const small = (title: string): string => title.replace(/^\p{Lu}(?=\p{Ll})/u, (c) => c.toLowerCase());

export const TONES: Record<Standing['tone'], string> = {
  good: 'text-verdigris',
  caution: 'text-ochre',
  left: 'text-madder',
};
