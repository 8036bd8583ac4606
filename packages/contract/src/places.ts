import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsInt,
  IsISO8601,
  IsNumber,
  IsOptional,
  IsString,
  IsUUID,
  Length,
  MaxLength,
} from 'class-validator';
import { Ask } from './asking.ts';
import { Changed } from './changes.ts';
import { MANY_IDS, route } from './route.ts';
import { Ids, ListOf, Optional, OrNull, Part } from './shape.ts';
import { Chosen } from './sources.ts';

/** Until when a collection is needed. */
export class CollectionEnd {
  /** The last day, as yyyy-mm-dd. */
  @IsISO8601({ strict: true }) @Length(10, 10) day!: string;
  /** What then is: "the hearing". */
  @IsString() @MaxLength(200) what!: string;
}

export class CollectionNode {
  @IsUUID() id!: string;
  @IsString() name!: string;
  /** What it is for; empty where nobody said. */
  @IsString() says!: string;
  @OrNull() @Part(() => CollectionEnd) until!: CollectionEnd | null;
  /** A question whose results belong to it besides what is filed by hand. */
  @OrNull() @Part(() => Ask) rule!: Ask | null;
  /** The heading of the tags it allows; null where any. */
  @OrNull() @IsString() allows!: string | null;
  /** True where it is yours and you alone see it. */
  @IsBoolean() mine!: boolean;
  /** Sources in it and in all below it, each counted once. */
  @IsInt() count!: number;
}

export class Placement {
  @IsUUID() id!: string;
  @IsUUID() collection!: string;
  @OrNull() @IsUUID() parent!: string | null;
  /** Among those beside it, the lowest first; null where it stands by its name, behind those. */
  @OrNull() @IsNumber() rank!: number | null;
}

export class PlacesReply {
  @ListOf(() => CollectionNode) collections!: CollectionNode[];
  @ListOf(() => Placement) placements!: Placement[];
  @IsInt() loose!: number;
  @IsInt() bin!: number;
  /** How many days removed sources wait there. */
  @IsInt() binDays!: number;
  /** How many wait to be taken in. */
  @IsInt() intake!: number;
  @IsInt() total!: number;
}

export class NewCollection {
  @IsString() @Length(1, 200) name!: string;
  @Optional() @IsUUID() parent?: string;
  /** Seen by you alone. */
  @Optional() @IsBoolean() mine?: boolean;
}

/** What is to be another; the rest stays. */
export class EditCollection {
  @Optional() @IsString() @Length(1, 200) name?: string;
  /** The name it had when one began: where it has another by now, nothing is renamed. */
  @Optional() @IsString() @MaxLength(1000) seen?: string;
  @Optional() @IsString() @MaxLength(4000) says?: string;
  /** Null where it has no end. */
  @IsOptional() @Part(() => CollectionEnd) until?: CollectionEnd | null;
  /** Null takes the rule away. */
  @IsOptional() @Part(() => Ask) rule?: Ask | null;
  /** The heading of the tags it allows; null for any. */
  @IsOptional() @IsString() @MaxLength(200) allows?: string | null;
  /** Seen by you alone, or by all members. */
  @Optional() @IsBoolean() mine?: boolean;
}

export class PlaceCollection {
  @IsUUID() collection!: string;
  @IsOptional() @IsUUID() parent?: string | null;
  /** The placement it moves from; without one it gets a further placement. */
  @Optional() @IsUUID() movedFrom?: string;
  /** The placement it is to stand before, by hand; null for the end. */
  @IsOptional() @IsUUID() before?: string | null;
}

/** Below which collection, or at the top, names are to give the order again. */
export class OrderByName {
  @IsOptional() @IsUUID() parent?: string | null;
}

export class MergeCollections {
  @Ids() @ArrayMinSize(1) @ArrayMaxSize(20) others!: string[];
}

export class CompareCollections {
  @IsArray() @ArrayMinSize(2) @ArrayMaxSize(5) @IsUUID('all', { each: true }) of!: string[];
}

/** Sources that stand in just these of the collections compared. */
export class ComparedPart {
  @Ids() in!: string[];
  @IsInt() count!: number;
}

export class CompareReply {
  @ListOf(() => CollectionNode) collections!: CollectionNode[];
  /** One for each choice of them that holds a source. */
  @ListOf(() => ComparedPart) parts!: ComparedPart[];
}

export class FileSources extends Chosen {
  @Ids() @ArrayMinSize(1) @ArrayMaxSize(50) collections!: string[];
  @IsBoolean() present!: boolean;
  /** The collection they are moved out of. */
  @Optional() @IsUUID() from?: string;
}

export const placeRoutes = {
  places: route({
    method: 'GET',
    path: '/w/:workspace/places',
    may: 'read',
    bounded: true,
    byKey: true,
    summary: 'The collections, where they stand and what they hold.',
    reply: PlacesReply,
  }),
  make: route({
    method: 'POST',
    path: '/w/:workspace/collections',
    may: 'own',
    summary: 'Make a collection.',
    body: NewCollection,
    reply: Changed,
  }),
  edit: route({
    method: 'PATCH',
    path: '/w/:workspace/collections/:collection',
    may: 'own',
    summary: 'Rename a collection, or say what it is for, until when, and by what rule sources belong to it.',
    body: EditCollection,
    reply: Changed,
  }),
  copy: route({
    method: 'POST',
    path: '/w/:workspace/collections/:collection/copy',
    may: 'own',
    summary: 'Copy a collection with all below it; the sources are filed in both.',
    reply: Changed,
  }),
  merge: route({
    method: 'POST',
    path: '/w/:workspace/collections/:collection/merge',
    may: 'own',
    summary: 'Make others part of a collection: their sources, and what stands below them.',
    body: MergeCollections,
    reply: Changed,
  }),
  toBin: route({
    method: 'POST',
    path: '/w/:workspace/collections/:collection/bin',
    may: 'arrange',
    summary: 'Remove a collection and move its sources to the bin.',
    reply: Changed,
  }),
  compare: route({
    method: 'GET',
    path: '/w/:workspace/compare',
    may: 'read',
    summary: 'What collections have in common, and what each has alone.',
    query: CompareCollections,
    reply: CompareReply,
  }),
  byName: route({
    method: 'POST',
    path: '/w/:workspace/order',
    may: 'arrange',
    summary: 'Put collections beside each other in the order of their names again.',
    body: OrderByName,
    reply: Changed,
  }),
  place: route({
    method: 'POST',
    path: '/w/:workspace/placements',
    may: 'own',
    summary: 'Place a collection, or move a placement.',
    body: PlaceCollection,
    reply: Changed,
  }),
  unplace: route({
    method: 'DELETE',
    path: '/w/:workspace/placements/:placement',
    may: 'own',
    summary: 'Remove a placement; its sources stay.',
    reply: Changed,
  }),
  file: route({
    method: 'POST',
    path: '/w/:workspace/filing',
    may: 'own',
    summary: 'File sources in collections, take them from these, or move them there.',
    body: FileSources,
    most: MANY_IDS,
    reply: Changed,
  }),
};
