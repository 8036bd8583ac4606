/** Decorators for what replies are made of: each both checks and describes. */
import { Type } from 'class-transformer';
import { IsArray, IsDefined, IsOptional, IsString, IsUUID, ValidateIf, ValidateNested } from 'class-validator';

export type Class<T> = new () => T;

const all =
  (...decorators: PropertyDecorator[]): PropertyDecorator =>
  (target, key) =>
    decorators.forEach((d) => d(target, key));

/** A list of shapes. */
export const ListOf = (type: () => Class<unknown>): PropertyDecorator =>
  all(IsArray(), ValidateNested({ each: true }), Type(type));
/** A list of plain values: `@Texts()`, `@Ids()`. */
export const Texts = (): PropertyDecorator => all(IsArray(), IsString({ each: true }));
export const Ids = (): PropertyDecorator => all(IsArray(), IsUUID('all', { each: true }));
/** A shape within a shape. */
export const Part = (type: () => Class<unknown>): PropertyDecorator => all(IsDefined(), ValidateNested(), Type(type));
export const OptionalPart = (type: () => Class<unknown>): PropertyDecorator =>
  all(IsOptional(), ValidateNested(), Type(type));
/** Null, or what the next decorators say; never left out. */
export const OrNull = (): PropertyDecorator => ValidateIf((_, value) => value !== null);
