/** More than this is a file, and comes in as one; in UTF-16 units. */
export const MOST_TYPED = 400_000;
