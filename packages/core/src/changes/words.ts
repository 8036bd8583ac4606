/** Words that sentences about changes are made of. */
import { counted } from '../wording/index.ts';

export const countSources = (n: number): string => counted(n, 'source');

/** "title, year and note"; of more than three only how many. */
export function listed(words: string[]): string {
  if (words.length > 3) return `${words.length} fields`;
  return words.length < 2 ? (words[0] ?? 'nothing') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;
}
