export { amongOf, type Among } from './among.ts';
export { isShouting, isTitleCase, sentenceCase, type CaseOptions } from './case.ts';
export { CASES, inCase, type TitleCasing } from './cased.ts';
export { mended, proof, SURE, type Finding } from './proof.ts';
export { findRules, ruleOf, RULES } from './registry.ts';
export { SEVERITIES, type FileSeen, type Found, type Mend, type Rule, type Severity, type View } from './rule.ts';
export { usesByKind, usesOf } from './uses.ts';
