/** Checks what came in against a contract class. Unknown fields are refused, so that a misspelt one is not silent. */
import { plainToInstance } from 'class-transformer';
import { getMetadataStorage, validate, type ValidationError } from 'class-validator';
import { hasHalfEscapes, jsonWithoutNul } from '@pandecta/core/text';
import { Refusal } from '../errors.ts';
import type { Class } from './route.ts';

export async function check<T>(type: Class<T>, input: unknown, fromQuery = false): Promise<T> {
  if (typeof input !== 'object' || input === null || Array.isArray(input))
    throw new Refusal('invalid', 'an object is expected');
  // Neither text nor JSON in the database can hold U+0000: in a question it says nothing, in data it is refused.
  const json = JSON.stringify(fromQuery ? coerce(type, input as Record<string, unknown>) : input);
  const clean = jsonWithoutNul(json);
  if (!fromQuery && clean !== json) throw new Refusal('invalid', 'it holds the character U+0000');
  // Written out by JSON.stringify only where they stand alone.
  if (!fromQuery && hasHalfEscapes(json)) throw new Refusal('invalid', 'it holds half a character (U+D800 to U+DFFF)');
  const plain: unknown = fromQuery ? JSON.parse(clean) : input;
  const instance = plainToInstance(type, plain);
  const errors = await validate(instance as object, { whitelist: true, forbidNonWhitelisted: true });
  if (errors.length) throw new Refusal('invalid', errors.map(says).join('; '));
  return instance;
}

function says(error: ValidationError): string {
  const own = Object.values(error.constraints ?? {});
  const below = (error.children ?? []).map((c) => `${error.property}.${says(c)}`);
  return [...own, ...below].join('; ');
}

/** A query string holds only text: numbers, truth values and lists are made of it as the class has them. */
function coerce(type: Class<unknown>, input: Record<string, unknown>): Record<string, unknown> {
  const metadata = getMetadataStorage().getTargetValidationMetadatas(type, '', true, false);
  const kinds = new Map<string, Set<string>>();
  for (const m of metadata) kinds.set(m.propertyName, (kinds.get(m.propertyName) ?? new Set()).add(m.name ?? ''));
  return Object.fromEntries(
    Object.entries(input).map(([key, value]) => {
      const is = kinds.get(key);
      if (is?.has('isArray')) return [key, Array.isArray(value) ? value : [value]];
      if (is?.has('isInt') && typeof value === 'string' && /^-?\d+$/.test(value)) return [key, Number(value)];
      if (is?.has('isBoolean') && (value === 'true' || value === 'false')) return [key, value === 'true'];
      return [key, value];
    }),
  );
}
