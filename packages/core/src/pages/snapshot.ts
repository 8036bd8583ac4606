/**
 * A page as it is kept: its text with headings, lists, tables and pictures, without scripts, frames, forms and what stands
 * around it. It needs nothing from outside: pictures are put into it, or are left out.
 */
import type { CheerioAPI } from 'cheerio';
import sanitize from 'sanitize-html';
import { absolute } from './address.ts';
import { parsePage } from './parse.ts';

export interface Snapshot {
  /** A whole document of HTML, with `picture:N` where its pictures are to be. */
  html: string;
  text: string;
  /** Their addresses; the first is the one the page shows of itself, where it has one. */
  pictures: string[];
}

const MOST_PICTURES = 12;
const AROUND =
  'script,style,noscript,template,nav,aside,form,iframe,object,embed,svg,canvas,button,input,select,textarea,dialog,[hidden],[aria-hidden="true"],[role="navigation"],[role="banner"],[role="contentinfo"],body > header,body > footer';
/** The text proper holds at least this much of all that is on the page. */
const FAIR_SHARE = 0.4;
const LOOK =
  'body{font:18px/1.55 Georgia,serif;max-width:42rem;margin:2rem auto;padding:0 1.5rem;color:#1f262d;background:#fdfcf8}img{max-width:100%;height:auto}table{border-collapse:collapse}td,th{border:1px solid #bbb;padding:.2em .5em}figcaption,.from{font:14px/1.4 sans-serif;color:#555}blockquote{margin-left:1rem;padding-left:1rem;border-left:3px solid #bbb}a{color:#1a655e}';

/**
 * @param address where it was found, to which its links and pictures are relative
 * @param from a sentence that says where it is from, and when
 */
export function snapshotOf(html: string, address: string, from: string): Snapshot {
  const $ = parsePage(html);
  const title = ($('h1').first().text() || $('title').first().text()).replace(/\s+/g, ' ').trim();
  const own = $('meta[property="og:image"]').attr('content');
  $(AROUND).remove();
  const part = mainOf($);
  const pictures: string[] = [];
  const keep = (src: string | undefined): string | undefined => {
    const at = absolute(src, address);
    if (!at || pictures.length >= MOST_PICTURES) return undefined;
    const known = pictures.indexOf(at);
    return `picture:${known >= 0 ? known : pictures.push(at) - 1}`;
  };
  const lead = keep(own);
  const body = sanitize(part, {
    allowedTags: [
      ...sanitize.defaults.allowedTags.filter((t) => t !== 'nav' && t !== 'aside'),
      'img',
      'h1',
      'h2',
      'del',
      'ins',
    ],
    allowedAttributes: { a: ['href'], img: ['src', 'alt'], td: ['colspan', 'rowspan'], th: ['colspan', 'rowspan'] },
    allowedSchemes: ['http', 'https', 'picture'],
    transformTags: {
      a: (tag, { href }) => ({
        tagName: tag,
        attribs: { ...(absolute(href, address) && { href: absolute(href, address)! }) },
      }),
      img: (tag, { src, alt }) => {
        const kept = keep(src);
        return { tagName: tag, attribs: { ...(kept && { src: kept }), alt: alt ?? '' } };
      },
    },
    exclusiveFilter: ({ tag, attribs }) => tag === 'img' && !attribs.src,
  });
  const escaped = sanitize(title, { allowedTags: [], allowedAttributes: {} });
  const said = sanitize(from, { allowedTags: [], allowedAttributes: {} });
  const shown = lead && !body.includes(lead) ? `<p><img src="${lead}" alt=""></p>` : '';
  const text = parsePage(body).text().replace(/\s+/g, ' ').trim();
  return {
    html: `<!doctype html><html><head><meta charset="utf-8"><title>${escaped}</title><style>${LOOK}</style></head><body><p class="from">${said}</p>${shown}${body}</body></html>`,
    text: [title, text.startsWith(title) ? text.slice(title.length).trim() : text].filter(Boolean).join('\n'),
    pictures,
  };
}

function mainOf($: CheerioAPI): string {
  const body = $('body');
  const all = body.text().replace(/\s+/g, ' ').length;
  for (const of of ['article', 'main', '[role="main"]']) {
    const found = $(of);
    if (found.length === 1 && found.text().replace(/\s+/g, ' ').length >= all * FAIR_SHARE) return found.html() ?? '';
  }
  return body.html() ?? '';
}

/** The snapshot with its pictures in it. @param pictures as `data:` addresses by their place; those missing are left out */
export const withPictures = (html: string, pictures: ReadonlyMap<number, string>): string =>
  html.replace(/<img src="picture:(\d+)"([^>]*)>/g, (_, n: string, rest: string) => {
    const data = pictures.get(Number(n));
    return data ? `<img src="${data}"${rest}>` : '';
  });
