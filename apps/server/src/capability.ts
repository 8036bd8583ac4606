/**
 * A part of the server: a folder whose `index.ts` declares all that it brings. `composition/` gathers what the capabilities
 * bring of each sort, and hands it to the folders that work with all of it. What each sort must hold so that nothing is missing
 * is checked there, by the compiler.
 */
import type { Declare } from './http/route.ts';
import type { Facets } from './indexing/facet.ts';
import type { AnyJobOf, JobOf } from './queue/kind.ts';
import type { Services } from './services.ts';

/** At a quiet hour. */
export const ONCE_A_DAY = '17 3 * * *';

/** A kind of long work; what is queued for it is typed by its input. */
export const defineJob = <Input>(kind: JobOf<Services, Input>): JobOf<Services, Input> => kind;

export interface Capability {
  routes?: (declare: Declare, services: Services) => void;
  /** Its kinds of change: `CarriersOf` (changes/carry.ts). */
  changes?: object;
  /** What it holds that changes speak of: `SubjectsOf` (subjects/registry.ts). */
  subjects?: object;
  facets?: Facets[];
  /** What is searched by itself on a source: `DocumentsOf` (indexing/documents.ts). */
  documents?: object;
  /** The fields of a query it answers: `FieldsOf` (searching/fields.ts). */
  fields?: object;
  /** How what is chosen under Narrow is asked for: `Narrowings` (searching/fields.ts). */
  narrowings?: object;
  /** Its part of a line of the ledger: `linePart` (searching/line.ts). */
  line?: object;
  /** Its short lists: `ListsOf` (lists/kinds.ts). */
  lists?: object;
  /** Tables whose rows are deleted with their source; see `records/purged.ts`. */
  purged?: string[];
  /** What is looked after before anything else is done. */
  first?: (services: Services) => Promise<unknown>;
  /** Long work it does. */
  jobs?: AnyJobOf<Services>[];
  /** Work one of the servers does by itself at certain times, by name; `at` as cron has it. */
  regular?: Record<string, { at: string; work: (services: Services) => Promise<unknown> }>;
}
