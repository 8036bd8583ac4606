import { presentInBounds, type SubjectsOf } from '../subjects/registry.ts';

export const glossSubjects: SubjectsOf<'gloss'> = {
  gloss: {
    called: 'gloss',
    table: 'glosses',
    visibleTo: presentInBounds,
    missing: 'no_such_gloss',
    othersWork: 'guards',
  },
};
