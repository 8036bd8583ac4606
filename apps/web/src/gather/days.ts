/** Days as one speaks of them: today, yesterday, 22 November. */
const DAY = 86_400_000;
export const dayOf = (at: string): string => {
  const days = Math.floor((new Date().setHours(24, 0, 0, 0) - Date.parse(at)) / DAY);
  if (days <= 0) return 'Today';
  if (days === 1) return 'Yesterday';
  return new Date(at).toLocaleDateString('en-GB', {
    day: 'numeric',
    month: 'long',
    ...(days > 300 && { year: 'numeric' }),
  });
};
