declare module 'stopword' {
  /** Words of English that say nothing by themselves. */
  export const eng: string[];
}
