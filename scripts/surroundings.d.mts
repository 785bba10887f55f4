export class Misunderstood extends Error {}
export function surroundings(
  env: NodeJS.ProcessEnv,
  root: string,
): { home: string; port: number | null; databaseUrl: string | null; migrationUrl: string | null };
export function refuseUnreachable(url: string, name: string): Promise<void>;
