/**
 * DOIs after ISO 26324 and the DOI Handbook, section 2: `10.` registrant `/` suffix, case-insensitive.
 * The characters of the suffix are, in practice, those of the registration agencies' pattern, and those of SICI
 * (ANSI/NISO Z39.56), which older DOIs are made of: `10.5555/(SICI)1097-0010(1999)50:1<22::AID-X5>3.0.CO;2-M`.
 */
const SICI = String.raw`10\.\d{4,9}(?:\.\d+)*\/[^\s"<>{}|\\^\`]*\(SICI\)[^\s"<>{}|\\^\`]*<[^\s"<>{}|\\^\`]*>[^\s"<>{}|\\^\`]*`;
const USUAL = String.raw`10\.\d{4,9}(?:\.\d+)*\/[^\s"<>{}|\\^\`]+`;
const FIND = new RegExp(String.raw`(?<![\d.])(?:${SICI}|${USUAL})`, 'gi');

/** All DOIs in a text in order of appearance, spelled as they appear; each once, ignoring case. */
export function findDois(text: string): string[] {
  const found = (withoutInvisible(text).match(FIND) ?? []).map(trimmed).filter(isWhole);
  const first = new Map(found.toReversed().map((d) => [d.toLowerCase(), d]));
  return [...new Set(found.map((d) => first.get(d.toLowerCase())!))];
}

const isWhole = (doi: string): boolean => /^10\.[\d.]+\/./.test(doi);

/** Longer than any DOI in any address: its handbook bounds neither, and no registry has a longer one (common practice). */
const LONGEST = 4000;

/** The DOI in the form in which two are compared: `plainDoi` in lower case. */
export const normaliseDoi = (text: string): string | undefined => plainDoi(text)?.toLowerCase();

/**
 * The DOI by itself (no resolver, no prefix; capitals and small letters as they came), or undefined when the text is not
 * one: a DOI as people have them, with what goes before and after it, in an address of a resolver, a library's proxy or
 * a publisher.
 */
export function plainDoi(text: string): string | undefined {
  if (text.length > LONGEST) return undefined;
  const t = withoutInvisible(decoded(text.trim())).replace(/\s+/g, ' ');
  const bare =
    /^(?:\(? ?(?:info:doi\/|urn:doi:|doi ?[:=]? ?(?:https?:\/\/(?:dx\.)?doi\.org\/)?)|<)? ?(10\.\d{4,9}(?:\.\d+)* ?\/ ?\S+)$/i.exec(
      t,
    );
  if (bare) return whole(bare[1]!.replace(/\s/g, ''));
  if (!/^(?:https?:\/\/|www\.|(?:dx\.)?doi\.org)\S+$/i.test(t)) return undefined;
  const found = /(?:^|[/=:])(10\.\d{4,9}(?:\.\d+)*\/\S+)$/i.exec(t)?.[1];
  if (!found) return undefined;
  // A publisher's page has more behind the DOI: which form of the text, and what was asked for.
  const resolver = /\bdoi\.org/i.test(t.slice(0, t.length - found.length));
  const own = resolver
    ? found.replace(/\?(?:journalcode|utm_|casa_|ref|via|download|noredirect)[^\s]*$/i, '')
    : found.replace(/[?#].*$/, '');
  return whole(resolver ? own : own.replace(FORM, ''));
}

const FORM =
  /(?:\/(?:abstract|full(?:text)?|full\.?(?:pdf|html)?|pdf(?:direct)?|epdf|epub|html|summary|meta|issuetoc|references|figures)|\.pdf|\.html?|\.full(?:\.pdf)?)$/i;

function whole(found: string): string | undefined {
  const doi = trimmed(found.replace(/\?(?:journalcode|utm_)\S*$/i, ''));
  return isWhole(doi) && !/\s/.test(doi) ? doi : undefined;
}

/** Characters that take no room: they come along with what is copied from a page. */
const withoutInvisible = (t: string): string => t.replace(/[\u00AD\u200B-\u200F\u202A-\u202E\u2060\uFEFF]/g, '');

/** Without the escapes of addresses and of markup. */
function decoded(text: string): string {
  const t = text.replace(/&(lt|gt|amp);/g, (_, name: string) => ({ lt: '<', gt: '>', amp: '&' })[name]!);
  if (!/%[0-9a-f]{2}/i.test(t)) return t;
  try {
    return decodeURIComponent(t);
  } catch {
    return t;
  }
}

/** Takes off punctuation that ends a sentence, and a closing bracket whose opening one is not in the DOI. */
function trimmed(doi: string): string {
  let t = doi;
  for (;;) {
    const last = t.at(-1)!;
    const open = ({ ')': '(', ']': '[', '>': '<' } as Record<string, string>)[last];
    const unbalanced = open && t.split(open).length < t.split(last).length;
    if (/[.,;:!?'’”*]/.test(last) || unbalanced) t = t.slice(0, -1);
    else return t;
  }
}
