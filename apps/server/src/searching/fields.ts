/**
 * What the fields of a query ask for that ask for no words: each capability says it of its own. Of a field that knows a few
 * values, each value is one of its own.
 */
import type { SQL } from 'drizzle-orm';
import type { Ask } from '@pandecta/contract';
import type { Condition } from '@pandecta/core/narrowing';
import { valueMeant, type OtherField, type ValueOf } from '@pandecta/core/query';
import type { Actor } from '../access/principal.ts';
import type { NumberSet } from '../columns/load.ts';
import type { Db } from '../database/connect.ts';
import { Registry } from '../registry.ts';
import { NOTHING, type Scope } from './facets.ts';

/** What a field or a narrowing is given to build its condition from. */
export interface FieldContext {
  db: Db;
  scope: Scope;
  /** Sources that bear one of these facets. */
  facet(type: string, keys: readonly string[]): Promise<Condition>;
  /** Sources whose ids a query selects. */
  sources(ids: SQL): Condition;
  set(set: NumberSet): Condition;
  /** What a question within the question asks for, named so that it cannot ask for itself; undefined where it would. */
  inner(question: { id: string; ask: Ask }): Promise<Condition | undefined>;
}

type Now<T> = T | Promise<T>;

export interface FieldDefinition {
  /** @returns the condition; undefined where nothing here bears the name that is asked for */
  condition(text: string, to: FieldContext, exactly: boolean): Now<Condition | undefined>;
  /** How its value may go on while it is typed, where no facet tells it. @param fits whether a name begins so */
  suggest?(db: Db, actor: Actor, fits: (name: string) => boolean): Promise<{ value: string; says?: string }[]>;
}

type FewValues = 'is' | 'has';
type FieldKey = Exclude<OtherField, FewValues> | { [F in FewValues]: `${F}:${ValueOf<F>}` }[FewValues];

/** One for each: a field without its condition does not compile. */
export type FieldDefinitions = { [F in FieldKey]: FieldDefinition };
/** The fields of the query that one capability answers. */
export type FieldsOf<F extends FieldKey> = Pick<FieldDefinitions, F>;

export const FIELDS = new Registry<FieldDefinitions>('query fields');

export function conditionOf(
  field: OtherField,
  text: string,
  to: FieldContext,
  exactly: boolean,
): Now<Condition | undefined> {
  if (field !== 'is' && field !== 'has') return FIELDS.all[field].condition(text, to, exactly);
  const value = valueMeant(field, text);
  return value ? FIELDS.all[`${field}:${value}` as FieldKey].condition(text, to, exactly) : NOTHING;
}

/** How what is chosen under Narrow is asked for, by the type of its facet, where more than the facet says it. */
export type Narrowings = Record<string, (keys: string[], to: FieldContext) => Promise<Condition>>;
export const NARROWINGS = new Registry<Narrowings>('narrowings');
