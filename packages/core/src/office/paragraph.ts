export interface Paragraph {
  text: string;
  /** Where it stands: in the running text, in a numbered or bulleted list, as a heading, or in a note. */
  as: 'text' | 'list' | 'heading' | 'note';
  /** Addresses its words lead to. */
  links: string[];
}
