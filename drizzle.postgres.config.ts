import { defineConfig } from 'drizzle-kit';

export default defineConfig({
  dialect: 'postgresql',
  schema: './src/server/elsewhere/postgres/tables.ts',
  out: './drizzle-postgres',
});
