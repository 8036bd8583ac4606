/** LaTeX as bibliographies hold it: field values and names to text, and back. */
export { latexToText, latexVerbatim, type Fate, type Reading } from './decode.ts';
export { protectCapitals, textToLatex } from './encode.ts';
export { readMacros, type Macros } from './macros.ts';
export { readNameList, splitNames } from './names.ts';
