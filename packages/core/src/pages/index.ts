export { eachOfPage, isPage } from './each.ts';
export { readPage, type ReadPage } from './read.ts';
export { tooDeep } from './depth.ts';
export { savedFrom, withoutTracking } from './address.ts';
export { snapshotOf, withPictures, type Snapshot } from './snapshot.ts';
