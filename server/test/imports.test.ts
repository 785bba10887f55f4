import type { ImportHead } from '@verdict/contract';
import type { Separator } from '@verdict/core/readings';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { rowsOfStream } from '../src/files/rows-of-stream.js';
import { column, sharedServer, type TestServer } from './running.js';

let server: TestServer;
beforeAll(async () => {
  server = await sharedServer();
});
afterAll(() => server.close());

const bytesOf = (text: string) => new TextEncoder().encode(text);

async function rowsInPieces(
  bytes: Uint8Array,
  size: number,
  separator: Separator,
  encoding: 'utf-8' | 'windows-1252' = 'utf-8',
) {
  async function* pieces() {
    for (let i = 0; i < bytes.length; i += size) yield bytes.slice(i, i + size);
  }
  const rows: string[][] = [];
  for await (const row of rowsOfStream(pieces(), separator, encoding)) rows.push(row);
  return rows;
}

describe('a file that arrives in pieces', () => {
  it('keeps CRLF, a byte order mark and the Western code page apart from the cells', async () => {
    expect(await rowsInPieces(bytesOf('\ufeffa,b\r\n1,2\r\n\r\n'), 3, 'comma')).toEqual([
      ['a', 'b'],
      ['1', '2'],
    ]);
    expect(await rowsInPieces(bytesOf('a\r\nb\r\n'), 2, 'none')).toEqual([['a'], ['b']]);
    expect(await rowsInPieces(bytesOf('7 µm,二'), 1, 'comma')).toEqual([['7 µm', '二']]);
    expect(await rowsInPieces(Uint8Array.of(0xb5, 44, 49), 1, 'comma', 'windows-1252')).toEqual([['µ', '1']]);
  });
});

const headOf = (columns: object[], more: Partial<ImportHead> = {}) => ({
  ...{ token: randomUUID(), revision: 0, who: 'tester', columns, separator: 'comma', skip: 1, encoding: 'utf-8' },
  ...more,
});
const bare = (name: string, more: object = {}) => {
  const { cells: _, ...rest } = column(name, [], more);
  return rest;
};
const send = async (id: string, head: object, text: string) => {
  const body = `${JSON.stringify(head)}\n${text}`;
  const answer = await fetch(`${server.url}api/studies/${id}/imports`, {
    method: 'POST',
    headers: { 'Content-Type': 'text/plain' },
    body,
  });
  return { status: answer.status, body: await answer.json() };
};

describe('an import', () => {
  it('fills columns across blocks, in one change that can be undone, and sent again is done once', async () => {
    const id = await server.newStudy();
    const [a, b] = [bare('a'), bare('b', { kind: 'label' })];
    const rows = Array.from({ length: 2345 }, (_, i) => `${i}.50,"x, ${i}"`);
    const head = headOf([a, b]);
    const text = ['a,b', ...rows].join('\n');
    expect(await send(id, head, text)).toMatchObject({ status: 200, body: { revision: 1 } });
    expect((await send(id, head, text)).body.revision).toBe(1);
    const { cells } = await server.get<{ cells: Record<string, string[]> }>(`/studies/${id}/cells`);
    expect(cells[a.id]).toEqual(rows.map((_, i) => `${i}.50`));
    expect(cells[b.id]![2344]).toBe('x, 2344');
    expect(await server.study(id)).toMatchObject({ rowCount: 2345, subject: a.id, revision: 1 });
    await server.post(`/studies/${id}/steps`, { token: randomUUID(), revision: 1, who: 'tester', step: 'undo' });
    expect(await server.study(id)).toMatchObject({ rowCount: 0, columns: [] });
  });

  it('takes only the columns that are wanted, each from its place in the file', async () => {
    const id = await server.newStudy();
    const [c, a] = [bare('c'), bare('a')];
    const head = headOf([c, a], { positions: [2, 0] });
    expect((await send(id, head, 'a,b,c\n1,x,3\n4,y')).status).toBe(200);
    const { cells } = await server.get<{ cells: Record<string, string[]> }>(`/studies/${id}/cells`);
    expect([cells[c.id], cells[a.id]]).toEqual([
      ['3', ''],
      ['1', '4'],
    ]);
  });

  it.each([
    ['a place for one column and not the other', 'a\n1', { positions: [] }, 'exactly one position'],
    ['a cell that is too long', `a\n${'8'.repeat(1001)}`, {}, 'Row 1 has a cell of 1001 characters'],
    ['no head', null, {}, 'not JSON'],
    ['a stale revision', 'a\n1', { revision: 7 }, 'has changed'],
    ['an unknown separator', 'a\n1', { separator: 'pipe' }, ''],
  ])('with %s is refused and leaves nothing', async (_, text, more, message) => {
    const id = await server.newStudy();
    const answer = await send(
      id,
      text === null ? ([] as never) : headOf([bare('a')], more as Partial<ImportHead>),
      text ?? '',
    );
    expect(answer.status).toBeGreaterThanOrEqual(400);
    if (text !== null) expect(answer.body.detail).toContain(message);
    expect((await server.study(id)).columns).toEqual([]);
  });

  it('that is broken off by its sender leaves nothing, and the study goes on', async () => {
    const id = await server.newStudy();
    const stop = new AbortController();
    let sent = 0;
    const body = new ReadableStream({
      async pull(controller) {
        await new Promise(setImmediate);
        if (sent === 0) controller.enqueue(bytesOf(`${JSON.stringify(headOf([bare('a')]))}\na\n`));
        else controller.enqueue(bytesOf('8.01\n'.repeat(4000)));
        if (++sent === 20) stop.abort();
      },
    });
    const request = fetch(`${server.url}api/studies/${id}/imports`, {
      ...{ method: 'POST', headers: { 'Content-Type': 'text/plain' }, body, signal: stop.signal },
      ...({ duplex: 'half' } as object),
    });
    await expect(request).rejects.toThrow();
    expect((await server.change(id, { kind: 'change-study', name: 'goes on' })).status).toBe(200);
    expect(await server.study(id)).toMatchObject({ columns: [], rowCount: 0, revision: 1 });
  });
});
