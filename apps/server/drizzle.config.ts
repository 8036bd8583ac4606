import { defineConfig } from 'drizzle-kit';

/** `npx drizzle-kit generate` writes the next migration from the difference to the schema. */
export default defineConfig({ dialect: 'postgresql', schema: './src/database/schema.ts', out: './migrations' });
