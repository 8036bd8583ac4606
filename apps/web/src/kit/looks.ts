/** How what one writes in, or chooses from, looks. */
export const BOX =
  'w-full rounded-[5px] border border-edge bg-card px-2 py-1 text-ink placeholder:text-muted disabled:border-line disabled:bg-panel disabled:text-muted';
