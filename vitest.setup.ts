/**
 * Properties are tried with the same cases in each run, so that a run says something about the code and not about luck.
 * `PANDECTA_SEED=random` looks for cases nobody has met, `PANDECTA_CASES` says how many (otherwise 100 a property).
 */
import fc from 'fast-check';

const { PANDECTA_SEED: seed = '27', PANDECTA_CASES: cases } = process.env;
fc.configureGlobal({
  ...(seed === 'random' ? {} : { seed: Number(seed) }),
  ...(cases ? { numRuns: Number(cases) } : {}),
});
