export { blockKeys, meetingKeys } from './blocks.ts';
export {
  clustersOf,
  matchAll,
  seenOf,
  standingIn,
  weigh,
  TOGETHER,
  WORTH_A_LOOK,
  type Decides,
  type Matched,
  type Pair,
  type Records,
} from './cluster.ts';
export { wordForWord } from './containers.ts';
export { CERTAIN, decide, reasonsOf, withSameFile, type Decision, type Reason } from './decide.ts';
export { differences, type Piece } from './differences.ts';
export { areOneWork, compare, compareSeen, VERDICTS, type Evidence, type Verdict } from './evidence.ts';
export { features, FEATURES, type Feature } from './features.ts';
export * from './fold.ts';
export * from './join.ts';
export * from './keys.ts';
export { LARGEST_BLOCK } from './meeting.ts';
export { ALL_OF_THEM, bestOfField, canCombine, mergedRecord, planMerge, type From, type Plan } from './plan.ts';
export { see, type Seen } from './seen.ts';
