import { IsBoolean, IsInt, IsOptional, IsString, IsUUID, Length } from 'class-validator';
import { Changed } from './changes.ts';
import { MANY_IDS, route } from './route.ts';
import { ListOf, OrNull } from './shape.ts';
import { Chosen } from './sources.ts';

export class CollectionNode {
  @IsUUID() id!: string;
  @IsString() name!: string;
  /** Sources in it and in all below it, each counted once. */
  @IsInt() count!: number;
}

export class Placement {
  @IsUUID() id!: string;
  @IsUUID() collection!: string;
  @OrNull() @IsUUID() parent!: string | null;
}

export class PlacesReply {
  @ListOf(() => CollectionNode) collections!: CollectionNode[];
  @ListOf(() => Placement) placements!: Placement[];
  @IsInt() loose!: number;
  @IsInt() bin!: number;
  /** How many wait to be taken in. */
  @IsInt() intake!: number;
  @IsInt() total!: number;
}

export class NewCollection {
  @IsString() @Length(1, 200) name!: string;
  @IsOptional() @IsUUID() parent?: string;
}

export class RenameCollection {
  @IsString() @Length(1, 200) name!: string;
  /** The name it had when one began: where it has another by now, nothing is renamed. */
  @IsOptional() @IsString() seen?: string;
}

export class PlaceCollection {
  @IsUUID() collection!: string;
  @IsOptional() @IsUUID() parent?: string | null;
  /** The placement it moves from; without one it gets a further placement. */
  @IsOptional() @IsUUID() movedFrom?: string;
}

export class FileSources extends Chosen {
  @IsUUID() collection!: string;
  @IsBoolean() present!: boolean;
}

export const placeRoutes = {
  places: route({
    method: 'GET',
    path: '/w/:workspace/places',
    may: 'read',
    byKey: true,
    summary: 'The collections, where they stand and what they hold.',
    reply: PlacesReply,
  }),
  make: route({
    method: 'POST',
    path: '/w/:workspace/collections',
    may: 'arrange',
    summary: 'Make a collection.',
    body: NewCollection,
    reply: Changed,
  }),
  rename: route({
    method: 'PATCH',
    path: '/w/:workspace/collections/:collection',
    may: 'arrange',
    summary: 'Rename a collection.',
    body: RenameCollection,
    reply: Changed,
  }),
  place: route({
    method: 'POST',
    path: '/w/:workspace/placements',
    may: 'arrange',
    summary: 'Place a collection, or move a placement.',
    body: PlaceCollection,
    reply: Changed,
  }),
  unplace: route({
    method: 'DELETE',
    path: '/w/:workspace/placements/:placement',
    may: 'arrange',
    summary: 'Remove a placement; its sources stay.',
    reply: Changed,
  }),
  file: route({
    method: 'POST',
    path: '/w/:workspace/filing',
    may: 'edit',
    summary: 'File sources in a collection, or take them from it.',
    body: FileSources,
    most: MANY_IDS,
    reply: Changed,
  }),
};
