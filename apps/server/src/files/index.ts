/** The content of files and the words in them. */
import { fileLine } from './line.ts';
import { pageDocuments } from './documents.ts';
import { fileFields } from './fields.ts';
import { fileFacets } from './facets.ts';
import { fileChanges } from './change.ts';
import { ONCE_A_DAY, type Capability } from '../capability.ts';
import { addFileJob } from './jobs.ts';
import { addPicturesJob } from './scans/pictures.ts';
import { recogniseAnewJob } from './scans/anew.ts';
import { fileRoutes } from './routes.ts';
import { sweepFiles } from './sweep.ts';

export const files = {
  routes: fileRoutes,
  jobs: [addFileJob, recogniseAnewJob, addPicturesJob],
  regular: { 'sweep-files': { at: ONCE_A_DAY, work: (services) => sweepFiles(services) } },
  changes: fileChanges,
  facets: [fileFacets],
  fields: fileFields,
  documents: pageDocuments,
  line: fileLine,
  purged: ['source_files'],
} satisfies Capability;
