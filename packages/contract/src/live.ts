import type { SubjectKind } from '@pandecta/core/changes';
import { route } from './route.ts';

/** What the news are about: subjects of changes, long work, words that can be found only now, likely duplicates, searches outside. */
export type NewsKind = SubjectKind | 'job' | 'words' | 'pair' | 'outside';

/** What was touched, as an event of the stream tells it. */
export interface Touched {
  /** Of each kind the ids, or that they are too many to name. */
  kinds: { [K in NewsKind]?: string[] | 'all' };
  /** The change that did it. */
  changeId?: string;
  /** News may have been missed: anything may have been touched. */
  everything?: boolean;
}

export const liveRoutes = {
  stream: route({
    method: 'GET',
    path: '/w/:workspace/live',
    may: 'read',
    bounded: true,
    stays: true,
    summary: 'What is touched in the workspace, as it happens: server-sent events “touched”.',
    produces: 'text/event-stream',
  }),
};
