/** Words by which a name is that of a body, not of a person (common practice: no family is called a commission). */
const BODY =
  /\b(?:university|institute|department|ministry|commission|council|committee|agency|association|society|office|board|group|consortium|collaboration|organi[sz]ation|authority|inquiry|bureau|court|parliament|bank|foundation|trust|centre|center|staff|team|desk|editors|ltd|inc|gmbh)\b/i;

export const isBody = (name: string): boolean => BODY.test(name);
