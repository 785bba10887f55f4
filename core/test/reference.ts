import { readFileSync } from 'node:fs';

/** Values made independently of Verdict (50-digit arithmetic and a general numeric library); see reference/README.md. */
export function reference<T>(name: string): T {
  return JSON.parse(readFileSync(new URL(`./reference/${name}.json`, import.meta.url), 'utf8')) as T;
}

export const columns = reference<Record<string, { resolution: number; values: number[] }>>('data');

export const column = (name: string) => Float64Array.from(columns[name]!.values);

/** Relative error, or absolute where the true value is 0. */
export const relativeError = (found: number, expected: number) =>
  Math.abs(found - expected) / (expected === 0 ? 1 : Math.abs(expected));
