import type { StudyFile } from '@verdict/contract';
import type { Chance } from './chance.js';
import { newColumn } from './changes.js';

export interface Answer {
  status: number;
  body: unknown;
}

/** The server as the fuzzer asks it; every answer is counted, and one of 500 or none at all is remembered with what was asked. */
export function createAsker(url: string) {
  const counts: Record<number, number> = {};
  const faults: string[] = [];
  let asked = 0;
  let looked = 0;

  async function ask(method: string, path: string, body?: string, type = 'application/json'): Promise<Answer> {
    if (method === 'GET') looked++;
    else asked++;
    const said = `${method} ${path} ${body?.slice(0, 2_000) ?? ''}`;
    try {
      const headers = { 'Content-Type': type };
      const answer = await fetch(url + path, { method, ...(body === undefined ? {} : { headers, body }) });
      counts[answer.status] = (counts[answer.status] ?? 0) + 1;
      const text = await answer.text();
      if (answer.status >= 500) faults.push(`${answer.status}: ${said}`);
      return { status: answer.status, body: text ? JSON.parse(text) : null };
    } catch (error) {
      faults.push(`no answer (${String(error)}): ${said}`);
      return { status: 0, body: null };
    }
  }
  const post = (path: string, body: unknown) => ask('POST', path, JSON.stringify(body));
  const saved = async (id: string) => (await ask('GET', `/studies/${id}/saved`)).body as StudyFile;
  return { ask, post, saved, faults, counts, asked: () => asked, looked: () => looked };
}
export type Asker = ReturnType<typeof createAsker>;

export const request = (chance: Chance, revision: number, more: object) => ({
  ...{ token: chance.id(), revision, who: 'fuzzer' },
  ...more,
});

/** A study with every sort of column, a reading set aside, a column that was taken out, and something undone. */
export async function someStudy({ post }: Asker, chance: Chance): Promise<string> {
  const { id } = (await post('/studies', { name: `study ${chance.upTo(1e6)}` })).body as { id: string };
  const rows = chance.holds(0.1) ? 1_003 : 8;
  const cells = (text: (i: number) => string) => Array.from({ length: rows }, (_, i) => text(i));
  const a = newColumn(
    chance,
    'thickness',
    cells((i) => (8 + (i % 7) / 100).toFixed(2)),
  );
  const kiln = newColumn(
    chance,
    'kiln',
    cells((i) => (i % 2 ? 'north' : 'south')),
    { kind: 'label' },
  );
  const n = newColumn(
    chance,
    'n',
    cells((i) => String(i % 3)),
    { kind: 'count' },
  );
  const gone = newColumn(chance, 'gone', ['1', '2']);
  const rank = newColumn(chance, 'rank', [], { derivation: { kind: 'rank', source: a.id } });
  const changes = [
    { kind: 'add-columns', columns: [a, kiln, n, gone] },
    { kind: 'add-columns', columns: [rank] },
    { kind: 'set-aside', readings: [{ column: a.id, row: 2, reason: 'chipped' }] },
    { kind: 'remove-columns', columns: [gone.id] },
  ];
  for (const [revision, change] of changes.entries())
    await post(`/studies/${id}/changes`, request(chance, revision, { change }));
  return id;
}
