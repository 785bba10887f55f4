import type { StudySummary } from '@verdict/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { column, sharedServer, type TestServer } from './running.js';

let server: TestServer;
beforeAll(async () => {
  server = await sharedServer();
});
afterAll(() => server.close());

describe('studies', () => {
  it('are listed with state, subject, that count, and the last change', async () => {
    const id = await server.newStudy();
    const a = column('thickness', ['8.01', '', 'x', '8.03', '9.87']);
    await server.change(id, { kind: 'add-columns', columns: [a] });
    await server.change(id, { kind: 'set-aside', readings: [{ column: a.id, row: 5, reason: 'caliper not closed' }] });
    const find = async () => (await server.get<StudySummary[]>('/studies')).find((study) => study.id === id)!;
    await expect.poll(find).toMatchObject({
      name: '',
      state: 'open',
      subject: 'thickness',
      n: 2,
      rowCount: 5,
      revision: 2,
    });
    // The count follows the next change.
    await server.change(id, { kind: 'edit-cells', runs: [{ column: a.id, row: 3, texts: ['8.02'] }] });
    await expect.poll(async () => (await find()).n).toBe(3);
  });

  it('go to the bin and come back, with everything in them', async () => {
    const id = await server.newStudy();
    await server.change(id, { kind: 'change-study', name: 'keep me' });
    const ids = async (bin: string) => (await server.get<StudySummary[]>(`/studies${bin}`)).map((study) => study.id);
    expect((await fetch(`${server.url}api/studies/${id}?who=tester`, { method: 'DELETE' })).status).toBe(204);
    expect(await ids('')).not.toContain(id);
    expect(await ids('?bin=1')).toContain(id);
    await server.post(`/studies/${id}/restore?who=tester`, {});
    expect(await ids('')).toContain(id);
    expect((await server.study(id)).name).toBe('keep me');
  });

  it('take the first column of numbers as subject, and another when that one is removed', async () => {
    const id = await server.newStudy();
    const [label, a, b] = [column('kiln', ['n'], { kind: 'label' }), column('a', ['1']), column('b', ['2'])];
    await server.change(id, { kind: 'add-columns', columns: [label, a, b] });
    expect((await server.study(id)).subject).toBe(a.id);
    await server.change(id, { kind: 'remove-columns', columns: [a.id] });
    expect((await server.study(id)).subject).toBe(b.id);
  });

  it('that do not exist answer 404 as problem details', async () => {
    const response = await fetch(`${server.url}api/studies/00000000-none`);
    expect(response.status).toBe(404);
    expect(response.headers.get('content-type')).toContain('application/problem+json');
    expect(await response.json()).toMatchObject({ code: 'not-found', status: 404 });
  });
});
