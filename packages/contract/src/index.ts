/** What server and web say to each other: classes whose decorators both validate and describe, and the routes. */
import 'reflect-metadata';
import { accessRoutes } from './access.ts';
import { alteringRoutes } from './altering.ts';
import { changeRoutes } from './changes.ts';
import { checkRoutes } from './check.ts';
import { citeRoutes } from './citing.ts';
import { fileRoutes } from './files.ts';
import { gatherRoutes } from './gathering.ts';
import { glossRoutes } from './glosses.ts';
import { headingRoutes } from './headings.ts';
import { intakeRoutes } from './intake.ts';
import { jobRoutes } from './jobs.ts';
import { liveRoutes } from './live.ts';
import { markRoutes, senseRoutes } from './marks.ts';
import { noteRoutes, outlineRoutes } from './notes.ts';
import { outsideRoutes } from './outside.ts';
import { ownRoutes } from './own.ts';
import { placeRoutes } from './places.ts';
import { relationRoutes } from './relations.ts';
import { savedRoutes } from './saved.ts';
import { searchRoutes, sourceRoutes } from './sources.ts';
import { assessmentRoutes } from './assessments.ts';
import { tagRoutes } from './tags.ts';

export * from './access.ts';
export * from './altering.ts';
export * from './asking.ts';
export * from './changes.ts';
export * from './check.ts';
export * from './citing.ts';
export * from './files.ts';
export * from './gathering.ts';
export * from './glosses.ts';
export * from './headings.ts';
export * from './intake.ts';
export * from './jobs.ts';
export * from './live.ts';
export * from './marks.ts';
export * from './notes.ts';
export * from './outside.ts';
export * from './own.ts';
export * from './places.ts';
export { ACTIONS, type Action, type ParamOf, type Route } from './route.ts';
export type { Class } from './shape.ts';
export * from './relations.ts';
export * from './saved.ts';
export * from './sources.ts';
export * from './assessments.ts';
export * from './tags.ts';

/** Every route, by capability and name. */
export const routes = {
  access: accessRoutes,
  changes: changeRoutes,
  sources: sourceRoutes,
  altering: alteringRoutes,
  own: ownRoutes,
  search: searchRoutes,
  saved: savedRoutes,
  relations: relationRoutes,
  assessments: assessmentRoutes,
  places: placeRoutes,
  tags: tagRoutes,
  gather: gatherRoutes,
  intake: intakeRoutes,
  outside: outsideRoutes,
  jobs: jobRoutes,
  live: liveRoutes,
  files: fileRoutes,
  marks: markRoutes,
  senses: senseRoutes,
  glosses: glossRoutes,
  notes: noteRoutes,
  headings: headingRoutes,
  outlines: outlineRoutes,
  cite: citeRoutes,
  check: checkRoutes,
};
