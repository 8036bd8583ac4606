/** Sources: editing, adding by hand, the bin. */
import { sourceSubjects } from './subjects.ts';
import { sourceLine } from './line.ts';
import { sourceFields } from './fields.ts';
import { comingFacets, peopleFacets, publishedFacets, sourceFacets } from './facets.ts';
import { sourceChanges } from './change.ts';
import { ONCE_A_DAY, type Capability } from '../capability.ts';
import { forgetReservedKeys, giveMissingKeys } from '../records/citation-keys.ts';
import { remindOfAccess } from './access-until.ts';
import { emptyBinJob } from './bin.ts';
import { purge } from './purge.ts';
import { sourceRoutes } from './routes.ts';
import { takePagesJob } from './take-pages.ts';

export const sources = {
  routes: sourceRoutes,
  first: async (services) => void giveMissingKeys(services),
  jobs: [emptyBinJob, takePagesJob],
  regular: {
    'empty-bin': { at: ONCE_A_DAY, work: ({ db, storage }) => purge(db, storage) },
    'reserved-keys': { at: ONCE_A_DAY, work: ({ db }) => forgetReservedKeys(db) },
    'access-until': { at: ONCE_A_DAY, work: (services) => remindOfAccess(services) },
  },
  changes: sourceChanges,
  facets: [sourceFacets, peopleFacets, publishedFacets, comingFacets],
  fields: sourceFields,
  line: sourceLine,
  purged: ['access_reminders'],
  subjects: sourceSubjects,
} satisfies Capability;
