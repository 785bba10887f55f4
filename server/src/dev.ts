import { serve } from './serve.js';

// Started by scripts/dev.mjs, which brings the database: the API alone, the page comes from the development server.
const { url, migrationUrl } = JSON.parse(process.env.VERDICT_DATABASE ?? '{}') as { url: string; migrationUrl: string };
await serve({
  databaseUrl: url,
  migrationUrl,
  ports: [Number(process.env.VERDICT_PORT)],
  page: null,
  demo: new URL('../../demo/', import.meta.url),
  log: process.stdout,
});
