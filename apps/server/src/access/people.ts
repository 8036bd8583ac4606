import { sql } from 'drizzle-orm';

/** The name of who did something, of a left join with users called `u`: what no person did, the application did itself. */
export const nameOfActor = sql`coalesce(u.name, 'Pandecta')`;
