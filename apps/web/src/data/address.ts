/** The values of a name in the query of an address. */
import type { LocationQueryValue } from 'vue-router';

type Value = LocationQueryValue | LocationQueryValue[] | undefined;

export const allOf = (value: Value): string[] => [value].flat().filter((v): v is string => Boolean(v));
export const firstOf = (value: Value): string | undefined => allOf(value)[0];
