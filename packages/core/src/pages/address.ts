/** Parameters that tell who sent one to a page, and nothing of the page (common practice). */
const TRACKING =
  /^(?:utm_\w+|gclid|dclid|fbclid|msclkid|mc_[ce]id|igshid|yclid|_hs\w+|vero_id|oly_\w+_id|wt_mc|spm|ref_src|cmpid)$/i;

/** The address without parameters of tracking; the same text where it is none. */
export function withoutTracking(address: string): string {
  if (!/[?&]/.test(address)) return address;
  try {
    const url = new URL(address);
    const names = [...url.searchParams.keys()].filter((name) => TRACKING.test(name));
    if (!names.length) return address;
    for (const name of names) url.searchParams.delete(name);
    return url.href;
  } catch {
    return address;
  }
}

/** Where a saved page was found, as browsers note it at its head (common practice); empty where it is not noted. */
export const savedFrom = (html: string): string =>
  /<!--\s*saved from url=\(\d+\)(https?:\/\/[^\s>]+?)\s*-->/.exec(html.slice(0, 2000))?.[1] ?? '';

/** Where a link of a page leads, over HTTP; nothing where it leads elsewhere. @param base where the page is, if it is known */
export function absolute(href: string | undefined, base: string): string | undefined {
  if (!href) return undefined;
  try {
    const url = new URL(href, base || undefined);
    return /^https?:$/.test(url.protocol) ? url.href : undefined;
  } catch {
    return undefined;
  }
}
