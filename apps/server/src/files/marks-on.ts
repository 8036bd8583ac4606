/** The marks on files: the capability of marks says where they stand once a file or the text of a page is another. */
import type { Change } from '@pandecta/core/changes';
import type { PageText } from '@pandecta/core/documents';
import type { Actor } from '../access/principal.ts';
import type { Db } from '../database/connect.ts';
import { Registry } from '../registry.ts';
import type { Services } from '../services.ts';

/** Files that come to a source. */
export interface Coming {
  source: string;
  /** The first is the one that is opened. */
  files: [string, ...string[]];
  /** A file of the source they take the place of. */
  instead?: string | undefined;
}

export interface Reworded {
  file: string;
  page: number;
  before: PageText;
  after: PageText;
}

export interface MarksOn {
  /** The changes that go with those by which the files come: their annotations as marks, and the marks of what they replace. */
  comeWith(tx: Db, services: Pick<Services, 'workers'>, actor: Actor, coming: Coming[]): Promise<Change[]>;
  /** The changes by which marks keep their words where a page is corrected. */
  keepWords(db: Db, actor: Actor, page: Reworded): Promise<Change[]>;
}

export const MARKS_ON = new Registry<MarksOn>('marks on files');
