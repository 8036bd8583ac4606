import type { SourceRecord } from '../source/index.ts';
import type { OutsideQuestion } from './question.ts';

/** One record of an answer. */
export interface OutsideEntry {
  record: SourceRecord;
  subjects: string[];
  /** Its number in the catalogue. */
  accession: string;
  /** Where its full text is, where the catalogue says so. */
  pdf?: string;
}

export interface OutsideAnswer {
  /** How many match in the catalogue, as far as it says. */
  total: number;
  entries: OutsideEntry[];
  /** What the catalogue said was wrong with the question. */
  refused?: string;
}

export interface Protocol {
  /** For a person. */
  name: string;
  accept: string;
  /** The most a catalogue of the kind is asked for at once. */
  atOnce: number;
  /** The address to ask; @param from counted from 0 */
  address(base: string, question: OutsideQuestion, from: number, count: number): string;
  /** @throws Error with what is wrong, where the answer is none of the protocol */
  read(text: string): OutsideAnswer;
}
