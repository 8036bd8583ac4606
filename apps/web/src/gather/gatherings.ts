/** The gatherings of the workspace, the newest first. */
import { routes, type ImportList, type Touched } from '@pandecta/contract';
import { ask } from '../api/client.ts';
import { useAsked, type Asked } from '../data/asked.ts';
import { concerns } from '../data/live.ts';

/** A report says whether its gathering stands. */
export const isTakenBack = (touched: Touched): boolean => concerns(touched, ['source']);

export const useGatherings = (): Asked<ImportList> =>
  useAsked({
    question: () => 'imports',
    fetch: (_, signal) => ask(routes.gather.imports, { signal }),
    concerns: (touched) => concerns(touched, ['job']) || isTakenBack(touched),
  });
