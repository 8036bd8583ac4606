/** Words that say how others stand together, and nothing by themselves: those of English, from a list that is kept for it. */
import { eng } from 'stopword';
import { stem } from './tokens.ts';

/** And those of the same sort that have four letters and more, which such a list leaves out. */
const MORE = 'about above across after again against along also although always among another around because become been before behind being below beside between beyond both cannot could does done down during each either else ever every from given hence here however into itself least less made makes many might more most much must near neither never none nobody nothing often only onto other others ought over perhaps rather same shall should since some still such than that their theirs them then there these they this those though through thus together toward towards under unless until upon used uses using very well were what when where whether which while whom whose will with within without would your'; // prettier-ignore

let known: Set<string> | undefined;

/** @param stemmed as `stem` gives it */
export function isFunctionWord(stemmed: string): boolean {
  known ??= new Set([...eng, ...MORE.split(' ')].map(stem));
  return known.has(stemmed);
}
