import { defineConfig } from 'drizzle-kit';

/** `npx drizzle-kit generate` writes the next migration from the difference to the schema. */
export default defineConfig({ dialect: 'postgresql', schema: './src/*/tables.ts', out: './migrations' });
