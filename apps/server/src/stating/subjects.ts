import { entrySubject } from '../lists/subjects.ts';
import type { SubjectsOf } from '../subjects/registry.ts';

export const stateSubjects: SubjectsOf<'label'> = { label: entrySubject('label', 'label', 'no_such_label') };
