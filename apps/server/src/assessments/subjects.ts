import { entrySubject } from '../lists/subjects.ts';
import { borneInBounds, type SubjectsOf } from '../subjects/registry.ts';

export const stateSubjects: SubjectsOf<'label'> = {
  label: entrySubject('label', 'label', 'no_such_label', (viewer, of) =>
    borneInBounds(viewer, { ties: 'source_labels', column: 'label_id' }, of),
  ),
};
