import { defineConfig } from 'drizzle-kit';

export default defineConfig({ dialect: 'mysql', schema: './src/store/schema.ts', out: './drizzle' });
