import { entrySubject } from '../lists/subjects.ts';
import type { SubjectsOf } from '../subjects/registry.ts';

export const savedSubjects: SubjectsOf<'saved' | 'folder'> = {
  saved: entrySubject('saved', 'saved search', 'not_saved'),
  folder: entrySubject('folder', 'folder', 'not_saved'),
};
