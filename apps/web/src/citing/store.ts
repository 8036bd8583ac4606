/** The style and language citations are shown and copied in, and the formatting itself. */
import { defineStore } from 'pinia';
import { useLocalStorage } from '@vueuse/core';
import { ref } from 'vue';
import { routes, type Chosen, type CiteReply } from '@pandecta/contract';
import type { StyleInfo } from '@pandecta/core/citing';
import { locatorOf } from '@pandecta/core/page-numbers';
import type { CiteItem } from '@pandecta/core/source';
import { PRINT_INFO, type PrintFormat } from '@pandecta/core/printing';
import { ask, send } from '../api/client.ts';
import { save } from '../kit/save.ts';
import { useChanges } from '../act/changes.ts';

/** More sources have no place in one citation. */
export const MOST_IN_ONE = 20;

export const useCiting = defineStore('citing', () => {
  const style = useLocalStorage<StyleInfo>('style', {
    id: 'chicago-author-date',
    title: 'Author-date',
    manner: 'author-date',
  });
  /** The language citations are written in; empty for the one each style is made for. */
  const locale = useLocalStorage('citation language', '');
  const locales = ref<string[]>([]);
  const changes = useChanges();

  async function find(like: string): Promise<StyleInfo[]> {
    const reply = await ask(routes.cite.styles, { query: { like } });
    locales.value = reply.locales;
    return reply.styles;
  }

  /** The chosen style and language, as fields of a request. */
  const written = () => ({ style: style.value.id, ...(locale.value && { locale: locale.value }) });

  const cite = (chosen: Chosen, inText = false, signal?: AbortSignal, items?: CiteItem[]): Promise<CiteReply> =>
    ask(routes.cite.cite, {
      body: {
        ...chosen,
        ...written(),
        inText,
        ...(items?.length && { items }),
      },
      ...(signal && { signal }),
    });

  /** Rich and plain text in one copy. */
  async function copy(html: string, text: string, says: string): Promise<void> {
    await navigator.clipboard.write([
      new ClipboardItem({
        'text/html': new Blob([html], { type: 'text/html' }),
        'text/plain': new Blob([text], { type: 'text/plain' }),
      }),
    ]);
    changes.tell(says);
  }

  /** @param what the list as it is printed at the end, or the citation as it stands in the text */
  async function copyCited(chosen: Chosen, what: 'bibliography' | 'citation', items?: CiteItem[]): Promise<void> {
    try {
      const reply = await cite(chosen, what === 'citation', undefined, items);
      const n = reply.entries.length;
      const missing = reply.unprinted.length ? `; ${unprintedWords(reply)}` : '';
      if (!n) return changes.tell(`Nothing copied: ${unprintedWords(reply)}`, null, true);
      if (what === 'citation')
        return await copy(
          reply.citationHtml ?? '',
          reply.citationText ?? '',
          `Copied “${reply.citationText}”${missing}`,
        );
      const hang = reply.hangingIndent ? ' style="padding-left:2em;text-indent:-2em"' : '';
      const first = reply.entries[0]!.text;
      await copy(
        reply.entries.map((e) => `<p${hang}>${e.html}</p>`).join('\n'),
        reply.entries.map((e) => e.text).join('\n'),
        (n === 1
          ? `Copied: ${first.length > 90 ? `${first.slice(0, 90)}…` : first}`
          : `Copied a bibliography of ${n} entries, as rich and as plain text`) + missing,
      );
    } catch (error) {
      changes.tell((error as Error).message, null, true);
    }
  }

  /** A quotation with its citation and page. @param cited the place, see core/page-numbers */
  async function copyQuote(quote: string, source: string, cited: string): Promise<void> {
    try {
      const reply = await cite({ ids: [source] }, true, undefined, [{ id: source, ...locatorOf(cited) }]);
      const text = quote.replace(/\s+/g, ' ').trim();
      const escaped = new Option(text).innerHTML;
      await copy(
        `“${escaped}” ${reply.citationHtml ?? ''}`,
        `“${text}” ${reply.citationText ?? ''}`,
        `Copied the quotation with ${reply.citationText ?? 'its citation'}`,
      );
    } catch (error) {
      changes.tell((error as Error).message, null, true);
    }
  }

  /** The bibliography as a file. */
  async function print(chosen: Chosen, format: PrintFormat): Promise<void> {
    try {
      const body = { ...chosen, ...written(), format };
      const response = await send(routes.cite.print, { body });
      save(`bibliography.${PRINT_INFO[format].extension}`, await response.blob());
      changes.tell(`Saved the bibliography as ${PRINT_INFO[format].name}, in ${style.value.title}`);
    } catch (error) {
      changes.tell((error as Error).message, null, true);
    }
  }

  /** Which of them the style has no form for, in words. */
  function unprintedWords(reply: CiteReply): string {
    const [u, all] = [reply.unprinted.length, reply.unprinted.length + reply.entries.length];
    return `${style.value.title} prints nothing for ${all === 1 ? 'a source like this' : `${u} of the ${all} sources`}`;
  }

  return { style, locale, locales, find, cite, copyCited, copyQuote, print, unprintedWords };
});
