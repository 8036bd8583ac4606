/** Names of files that are made from others. */

/** Endings that say of a file what it is; “No.12” has none of them and stays whole. */
const KIND = /\.(?:pdf|png|jpe?g|tiff?|hei[cf]|webp|gif|bmp|avif)$/i;

/** @param ending with its dot, as “.pdf” */
export const renamed = (name: string, ending: string): string => name.replace(KIND, '') + ending;
