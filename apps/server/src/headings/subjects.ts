import { entrySubject } from '../lists/subjects.ts';
import type { SubjectsOf } from '../subjects/registry.ts';

export const headingSubjects: SubjectsOf<'heading'> = {
  heading: entrySubject('heading', 'heading', 'no_such_heading'),
};
