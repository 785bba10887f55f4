/** A server under measurement, asked from another process. */
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';

/** The benches are one bundle; the scripts know their own place. */
export const scriptOf = (name: string) => import(pathToFileURL(join(process.cwd(), 'scripts', name)).href);

export const timed = async (work: () => Promise<unknown>): Promise<number> => {
  const started = performance.now();
  await work();
  return performance.now() - started;
};

export async function ask<T>(url: string, path: string, data?: object): Promise<T> {
  const answer = await fetch(`${url}api${path}`, {
    ...(data === undefined ? {} : { method: 'POST', body: JSON.stringify(data) }),
    headers: { 'Content-Type': 'application/json' },
  });
  if (!answer.ok) throw new Error(`${path}: ${answer.status} ${await answer.text()}`);
  return (await answer.json()) as T;
}
