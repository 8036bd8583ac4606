/** Checks what came in against a contract class. Unknown fields are refused, so that a misspelt one is not silent. */
import { plainToInstance } from 'class-transformer';
import { getMetadataStorage, validate, type ValidationError } from 'class-validator';
import type { Class, Route } from '@pandecta/contract';
import { cut, hasHalfEscapes, jsonWithoutNul } from '@pandecta/core/text';
import { Refusal } from '../errors.ts';

export async function check<T>(type: Class<T>, input: unknown, fromQuery = false): Promise<T> {
  if (typeof input !== 'object' || input === null || Array.isArray(input))
    throw new Refusal('invalid', 'an object is expected');
  refuseUnknown(type, input);
  // Neither text nor JSON in the database can hold U+0000: in a question it says nothing, in data it is refused.
  const json = JSON.stringify(fromQuery ? coerce(type, input as Record<string, unknown>) : input);
  const clean = jsonWithoutNul(json);
  if (!fromQuery && clean !== json) throw new Refusal('invalid', 'it holds the character U+0000');
  // Written out by JSON.stringify only where they stand alone.
  if (!fromQuery && hasHalfEscapes(json)) throw new Refusal('invalid', 'it holds half a character (U+D800 to U+DFFF)');
  const plain: unknown = fromQuery ? JSON.parse(clean) : input;
  const instance = plainToInstance(type, plain);
  const errors = await validate(instance as object, {
    whitelist: true,
    forbidNonWhitelisted: true,
    stopAtFirstError: true,
    validationError: { target: false, value: false },
  });
  if (errors.length) throw new Refusal('invalid', told(errors));
  return instance;
}

/** How many faults are told; who mends those asks again. */
const MOST_TOLD = 5;

const told = (errors: ValidationError[]): string => errors.slice(0, MOST_TOLD).map(says).join('; ');

function says(error: ValidationError): string {
  const own = Object.values(error.constraints ?? {}).map((text) => cut(text, 200));
  const below = (error.children ?? []).slice(0, MOST_TOLD).map((c) => `${error.property}.${says(c)}`);
  return [...own, ...below].join('; ');
}

/** Before anything else looks at them: a body of a hundred thousand keys costs no more than its first. */
function refuseUnknown(type: Class<unknown>, input: object): void {
  const known = new Set(metadataOf(type).map((m) => m.propertyName));
  for (const key in input) if (!known.has(key)) throw new Refusal('invalid', `there is no field “${cut(key, 60)}”`);
}

const metadataOf = (type: Class<unknown>) => getMetadataStorage().getTargetValidationMetadatas(type, '', true, false);

/** A query string holds only text: numbers, truth values and lists are made of it as the class has them. */
function coerce(type: Class<unknown>, input: Record<string, unknown>): Record<string, unknown> {
  const kinds = new Map<string, Set<string>>();
  for (const m of metadataOf(type))
    kinds.set(m.propertyName, (kinds.get(m.propertyName) ?? new Set()).add(m.name ?? ''));
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

/**
 * In tests: what a handler gives is of the class its route says, with nothing more and nothing less.
 * @throws Error with what is wrong
 */
export async function checkReply({ method, path, reply }: Route, given: unknown): Promise<void> {
  const instance = plainToInstance(reply!, JSON.parse(JSON.stringify(given)));
  const errors = await validate(instance as object, { whitelist: true, forbidNonWhitelisted: true });
  if (errors.length) throw new Error(`The reply of ${method} ${path} is not what it says: ${told(errors)}`);
}
