/** Runs in the page: tells at a glance what it holds, and gives its text as it is shown when it is asked for. */
import { wholeCharacters } from '@pandecta/core/text';
import type { Glance } from './messages.ts';

function glance(): Glance {
  const items = [...document.querySelectorAll('span.Z3988')].flatMap((el) => {
    const p = new URLSearchParams(el.getAttribute('title') ?? '');
    return p.get('rft.atitle') ?? p.get('rft.btitle') ?? p.get('rft.title') ?? [];
  });
  const has = (name: string): boolean => document.querySelector(`meta[name="${name}" i]`) !== null;
  const types = [...document.querySelectorAll('script[type="application/ld+json"]')]
    .map((s) => s.textContent ?? '')
    .join();
  const stamp = has('citation_journal_title')
    ? 'Ar'
    : has('citation_isbn')
      ? 'Bk'
      : has('citation_title')
        ? 'Ar'
        : /"@type"\s*:\s*\[?\s*"\w*NewsArticle"/.test(types)
          ? 'Nw'
          : /"@type"\s*:\s*\[?\s*"ScholarlyArticle"/.test(types)
            ? 'Ar'
            : 'We';
  const pdf = fullText();
  return { stamp, items: items.length > 1 ? items : [], ...(pdf && { pdf }) };
}

/** Stated by the page, linked as another form of it, or the only PDF it leads to. */
function fullText(): string | undefined {
  const stated = document.querySelector('meta[name="citation_pdf_url" i]')?.getAttribute('content');
  const linked = document.querySelector('link[type="application/pdf" i]')?.getAttribute('href');
  const anchors = [...document.querySelectorAll('a[href]')].map((a) => (a as HTMLAnchorElement).href.split('#')[0]!);
  const pdfs = [...new Set(anchors.filter((href) => /\.pdf(?:\?|$)/i.test(href)))];
  const found = stated ?? linked ?? (pdfs.length === 1 ? pdfs[0] : undefined);
  const address = found && URL.canParse(found, document.baseURI) ? new URL(found, document.baseURI) : undefined;
  return address && /^https?:$/.test(address.protocol) ? address.href : undefined;
}

void chrome.runtime.sendMessage({ say: 'glance', glance: glance() }).catch(() => undefined);
chrome.runtime.onMessage.addListener((message: unknown, _, answer) => {
  if ((message as { say?: string }).say !== 'page') return false;
  answer({ address: location.href, html: wholeCharacters(document.documentElement.outerHTML), glance: glance() });
  return false;
});
