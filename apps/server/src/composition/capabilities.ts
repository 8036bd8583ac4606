/** The capabilities, in the order the description of the API has them. */
import { accounts } from '../accounts/index.ts';
import { changes } from '../changes/index.ts';
import { check } from '../check/index.ts';
import { citing } from '../citing/index.ts';
import { files } from '../files/index.ts';
import { gathering } from '../gathering/index.ts';
import { glosses } from '../glosses/index.ts';
import { headings } from '../headings/index.ts';
import { intake } from '../intake/index.ts';
import { jobs } from '../jobs/index.ts';
import { live } from '../live/index.ts';
import { marks } from '../marks/index.ts';
import { notes } from '../notes/index.ts';
import { outside } from '../outside/index.ts';
import { own } from '../own/index.ts';
import { places } from '../places/index.ts';
import { relations } from '../relations/index.ts';
import { saved } from '../saved/index.ts';
import { searching } from '../searching/index.ts';
import { sources } from '../sources/index.ts';
import { assessments } from '../assessments/index.ts';
import { tags } from '../tags/index.ts';
import { indexing } from '../indexing/index.ts';
import { lists } from '../lists/index.ts';
import { referenceLists } from '../reference-lists/index.ts';
import type { Capability } from '../capability.ts';

/** Typed by what each declares, for what must be complete. */
export const DECLARED = [
  accounts,
  changes,
  sources,
  own,
  searching,
  relations,
  referenceLists,
  saved,
  assessments,
  places,
  tags,
  gathering,
  intake,
  outside,
  jobs,
  live,
  files,
  marks,
  glosses,
  notes,
  headings,
  citing,
  check,
  lists,
  indexing,
] as const;

export const CAPABILITIES: readonly Capability[] = DECLARED;
