import { IsBoolean, IsIn, IsOptional } from 'class-validator';
import { READING_STATES, type ReadingState } from '@pandecta/core/changes';
import { Changed } from './changes.ts';
import { MANY_IDS, route } from './route.ts';
import { Chosen } from './sources.ts';

export class SetReading extends Chosen {
  @IsOptional() @IsIn(READING_STATES) state!: ReadingState | null;
}

export class SetStar extends Chosen {
  @IsBoolean() present!: boolean;
}

export const ownRoutes = {
  reading: route({
    method: 'POST',
    path: '/w/:workspace/reading',
    may: 'own',
    bounded: true,
    summary: 'Set or clear your reading state of sources.',
    body: SetReading,
    most: MANY_IDS,
    reply: Changed,
  }),
  star: route({
    method: 'POST',
    path: '/w/:workspace/stars',
    may: 'own',
    bounded: true,
    summary: 'Star sources, or take your star from them.',
    body: SetStar,
    most: MANY_IDS,
    reply: Changed,
  }),
};
