/** The rules, the graver first. */
import { missingPart } from './rules/missing-part.ts';
import { kindFields } from './rules/kind-fields.ts';
import { doiForm } from './rules/doi-form.ts';
import { checkDigit } from './rules/check-digit.ts';
import { bodyAsPerson } from './rules/body-as-person.ts';
import { personAsBody } from './rules/person-as-body.ts';
import { severalInOneName } from './rules/several-in-one-name.ts';
import { nameParts } from './rules/name-parts.ts';
import { year } from './rules/year.ts';
import { pages } from './rules/pages.ts';
import { lawParts } from './rules/law-parts.ts';
import { mangled } from './rules/mangled.ts';
import { markup } from './rules/markup.ts';
import { stopsAndSpaces } from './rules/stops-and-spaces.ts';
import { labelInField } from './rules/label-in-field.ts';
import { volumeAndIssue } from './rules/volume-and-issue.ts';
import { editionWords } from './rules/edition-words.ts';
import { placeInPublisher } from './rules/place-in-publisher.ts';
import { doiAsAddress } from './rules/doi-as-address.ts';
import { titleCapitals } from './rules/title-capitals.ts';
import { titleCase } from './rules/title-case.ts';
import { nameCapitals } from './rules/name-capitals.ts';
import { initials } from './rules/initials.ts';
import { containerSpelling } from './rules/container-spelling.ts';
import { namesSwapped } from './rules/names-swapped.ts';
import { quotationMarks } from './rules/quotation-marks.ts';
import { languageMissing } from './rules/language-missing.ts';
import { otherScript } from './rules/other-script.ts';
import { retracted } from './rules/retracted.ts';
import { accessEnds } from './rules/access-ends.ts';
import { fileText } from './rules/file-text.ts';
import { fileOfAnother } from './rules/file-of-another.ts';
import { doiInFile } from './rules/doi-in-file.ts';
import { newerVersion } from './rules/newer-version.ts';
import { nameSpelling } from './rules/name-spelling.ts';
import { yearInDoi } from './rules/year-in-doi.ts';
import { yearOfVolume } from './rules/year-of-volume.ts';
import { noIdentifier } from './rules/no-identifier.ts';
import { fold } from '../words/index.ts';
import type { Rule } from './rule.ts';

export const RULES: readonly Rule[] = [
  missingPart,
  kindFields,
  doiForm,
  doiInFile,
  checkDigit,
  bodyAsPerson,
  personAsBody,
  severalInOneName,
  nameParts,
  namesSwapped,
  year,
  pages,
  lawParts,
  retracted,
  fileText,
  fileOfAnother,
  mangled,
  markup,
  stopsAndSpaces,
  labelInField,
  volumeAndIssue,
  editionWords,
  placeInPublisher,
  doiAsAddress,
  quotationMarks,
  languageMissing,
  titleCapitals,
  titleCase,
  nameCapitals,
  initials,
  nameSpelling,
  containerSpelling,
  noIdentifier,
  otherScript,
  yearInDoi,
  yearOfVolume,
  newerVersion,
  accessEnds,
];

/** The rules one means by a word: by their id, by the beginning of their title, or all of a severity; "any" means all. */
export function findRules(text: string): string[] {
  const wanted = fold(text).replaceAll('-', ' ').trim();
  const of = (holds: (rule: Rule) => boolean): string[] => RULES.filter(holds).map((r) => r.id);
  if (wanted === 'any') return of(() => true);
  const exact = of((r) => r.id.replaceAll('-', ' ') === wanted || r.severity === wanted);
  return exact.length || !wanted ? exact : of((r) => fold(r.title).startsWith(wanted));
}

export const ruleOf = (id: string): Rule | undefined => RULES.find((r) => r.id === id);
