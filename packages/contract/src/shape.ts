/** Decorators for what replies are made of: each both checks and describes. */
import { Type } from 'class-transformer';
import {
  IsArray,
  IsDefined,
  IsInt,
  IsObject,
  IsString,
  IsUUID,
  Max,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';

export type Class<T> = new () => T;

const all =
  (...decorators: PropertyDecorator[]): PropertyDecorator =>
  (target, key) =>
    decorators.forEach((d) => d(target, key));

/** A list of shapes. */
export const ListOf = (type: () => Class<unknown>): PropertyDecorator =>
  all(IsArray(), IsObject({ each: true }), ValidateNested({ each: true }), Type(type));
/** A list of plain values: `@Texts()`, `@Ids()`. */
export const Texts = (): PropertyDecorator => all(IsArray(), IsString({ each: true }));
export const Ids = (): PropertyDecorator => all(IsArray(), IsUUID('all', { each: true }));
/** A year of the search: no source is of another. */
export const IsYear = (): PropertyDecorator => all(IsInt(), Min(-100_000), Max(100_000));
/** A place in a list, from 0. */
export const IsPlace = (options?: { each: true }): PropertyDecorator =>
  all(IsInt(options), Min(0, options), Max(2_000_000_000, options));
/** A shape within a shape. A list is not one, though what is in it might be. */
export const Part = (type: () => Class<unknown>): PropertyDecorator =>
  all(IsDefined(), IsObject(), ValidateNested(), Type(type));
export const OptionalPart = (type: () => Class<unknown>): PropertyDecorator =>
  all(Optional(), IsObject(), ValidateNested(), Type(type));
/** Left out, or what the next decorators say. Of what may be null as well it is said by `IsOptional`. */
export const Optional = (): PropertyDecorator => ValidateIf((_, value) => value !== undefined);
/** Null, or what the next decorators say; never left out. */
export const OrNull = (): PropertyDecorator => ValidateIf((_, value) => value !== null);
