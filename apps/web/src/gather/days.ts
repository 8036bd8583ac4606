/** Days as one speaks of them: today, yesterday, 22 November. */
import { formatDate } from '@pandecta/core/wording';
const DAY = 86_400_000;
const dayOf = (at: string): string => {
  const days = Math.floor((new Date().setHours(24, 0, 0, 0) - Date.parse(at)) / DAY);
  if (days <= 0) return 'Today';
  if (days === 1) return 'Yesterday';
  return formatDate(at, days > 300 ? 'full' : 'this year');
};

/** What happened, by the day it did, in the order it stands. */
export function byDay<T extends { at: string }>(list: readonly T[]): { day: string; searches: T[] }[] {
  const out: { day: string; searches: T[] }[] = [];
  for (const one of list) {
    const day = dayOf(one.at);
    if (out.at(-1)?.day === day) out.at(-1)!.searches.push(one);
    else out.push({ day, searches: [one] });
  }
  return out;
}
