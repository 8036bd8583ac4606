import { presentInBounds, type SubjectsOf } from '../subjects/registry.ts';

export const markSubjects: SubjectsOf<'mark'> = {
  mark: {
    called: 'mark',
    table: 'marks',
    visibleTo: presentInBounds,
    missing: 'no_such_mark',
    othersWork: 'guards',
  },
};
