/** What may be done to one source or many: file, tag, state, bin, cite, export. */
import { defineStore } from 'pinia';
import { routes, type Chosen } from '@pandecta/contract';
import { countSources, READING_STATES, type ReadingState } from '@pandecta/core/changes';
import { EXPORT_INFO, type ExportFormat } from '@pandecta/core/formats';
import { ask, send } from '../api/client.ts';
import { useChanges } from '../act/changes.ts';
import { save } from '../kit/save.ts';

export const useBatch = defineStore('batch', () => {
  const { change, tell } = useChanges();

  const tag = (chosen: Chosen, name: string, present = true, subject = false): Promise<unknown> =>
    change(() => ask(routes.tags.tag, { body: { ...chosen, name, present, subject } }));
  const reading = (chosen: Chosen, state: ReadingState | null): Promise<unknown> =>
    change(() => ask(routes.own.reading, { body: { ...chosen, state } }));
  const star = (chosen: Chosen, present: boolean): Promise<unknown> =>
    change(() => ask(routes.own.star, { body: { ...chosen, present } }));
  const toBin = (chosen: Chosen): Promise<unknown> =>
    change(() => ask(routes.sources.presence, { body: { ...chosen, to: 'bin' } }));
  const restore = (chosen: Chosen): Promise<unknown> =>
    change(() => ask(routes.sources.presence, { body: { ...chosen, to: 'live' } }));

  /** None, to read, reading, read, none … */
  function nextState(state: ReadingState | null | undefined): ReadingState | null {
    return READING_STATES[state ? READING_STATES.indexOf(state) + 1 : 0] ?? null;
  }

  async function exportAs(chosen: Chosen, count: number, format: ExportFormat): Promise<void> {
    try {
      const response = await send(routes.cite.export, { body: { ...chosen, format } });
      save(`sources.${EXPORT_INFO[format].extension}`, await response.blob());
      tell(`Exported ${countSources(count)} as ${EXPORT_INFO[format].name}`);
    } catch (error) {
      tell((error as Error).message, null, true);
    }
  }

  return { tag, reading, star, toBin, restore, nextState, exportAs };
});
