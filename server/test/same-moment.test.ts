import type { Evidence, Job } from '@verdict/contract';
import { randomUUID } from 'node:crypto';
import { createConnection } from 'mysql2/promise';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { keepOf } from './keeping.js';
import { column, sharedServer, type TestServer } from './running.js';

let server: TestServer;
beforeAll(async () => {
  server = await sharedServer();
});
afterAll(() => server.close());

const CELLS = ['8.01', '8.02', '8.05', '7.99', '8.04', '8.00'];

async function withColumn() {
  const id = await server.newStudy();
  const added = column('a', CELLS);
  await server.change(id, { kind: 'add-columns', columns: [added] });
  return { id, keep: keepOf(added.id, CELLS) };
}
const EIGHT = Array.from({ length: 8 });

describe('at the same moment', () => {
  it('evidence with one id is kept once, and refused of another study', async () => {
    const [one, other] = [await withColumn(), await withColumn()];
    const sent = await Promise.all(EIGHT.map(() => server.post(`/studies/${one.id}/evidence`, one.keep)));
    expect(sent.map(({ status }) => status)).toEqual(EIGHT.map(() => 201));
    expect(await server.get<Evidence[]>(`/studies/${one.id}/evidence`)).toHaveLength(1);
    const id = randomUUID();
    const both = await Promise.all(
      [one, other, one, other].map(({ id: study, keep }) => server.post(`/studies/${study}/evidence`, { ...keep, id })),
    );
    const statuses = both.map(({ status }) => status);
    expect(statuses.toSorted()).toEqual([201, 201, 422, 422]);
    expect(statuses[0]).toBe(statuses[2]);
  });

  it('a job with one id is begun once, and refused of another study', async () => {
    const [one, other] = [await withColumn(), await withColumn()];
    const jobOf = ({ id, keep }: typeof one, jobId: string) => {
      const { analysis, version, column: of, parts, request, fingerprint, who } = keep;
      const body = {
        ...{ id: jobId, analysis, version, column: of, parts, request, fingerprint, who },
        place: `/studies/${id}/shape`,
      };
      return server.post<Job>(`/studies/${id}/jobs`, body);
    };
    const own = randomUUID();
    const sent = await Promise.all(EIGHT.map(() => jobOf(one, own)));
    expect(sent.map(({ status }) => status)).toEqual(EIGHT.map(() => 201));
    const id = randomUUID();
    const both = await Promise.all([one, other, one, other].map((study) => jobOf(study, id)));
    expect(both.map(({ status }) => status).toSorted()).toEqual([201, 201, 422, 422]);
  });

  it('evidence does not slip in after a verdict', async () => {
    const { id, keep } = await withColumn();
    const holder = await createConnection({ uri: inject('databaseUrl') });
    try {
      // The verdict holds the study; the evidence has found it open, and waits.
      await holder.beginTransaction();
      await holder.query('SELECT id FROM studies WHERE id = ? FOR UPDATE', [id]);
      const late = server.post(`/studies/${id}/evidence`, keep);
      const waiting = async () => {
        const [rows] = await holder.query(
          "SELECT id FROM information_schema.processlist WHERE info LIKE 'select%for update'",
        );
        return (rows as unknown[]).length;
      };
      await expect.poll(waiting).toBeGreaterThan(0);
      server.altered(id);
      await holder.query("UPDATE studies SET state = 'ruled' WHERE id = ?", [id]);
      await holder.commit();
      expect(await late).toMatchObject({ status: 409, body: { code: 'ruled' } });
    } finally {
      await holder.end();
    }
    expect(await server.get<Evidence[]>(`/studies/${id}/evidence`)).toEqual([]);
  });
});
