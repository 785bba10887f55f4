import { request } from 'node:http';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { createConnection } from 'mysql2/promise';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { startMariaDb } from '../../scripts/mariadb.mjs';
import { loadDemo } from '../src/demo.js';
import { openDatabase } from '../src/store/database.js';
import { listStudies, readSample } from '../src/store/studies.js';
import { column, sharedServer, startServer, type TestServer } from './running.js';

let server: TestServer;
beforeAll(async () => {
  server = await sharedServer();
});
afterAll(() => server.close());

/** A request with headers that fetch would not let through. */
function raw(
  headers: Record<string, string>,
  method = 'GET',
  path = '/api/studies',
): Promise<{ status: number; headers: NodeJS.Dict<string | string[]>; body: string }> {
  return new Promise((resolve, reject) => {
    const ask = request(server.url, { method, headers, path }, (response) => {
      let body = '';
      response.on('data', (chunk) => (body += chunk));
      response.on('end', () => resolve({ status: response.statusCode!, headers: response.headers, body }));
    });
    ask.on('error', reject);
    ask.end(method === 'POST' ? '{}' : undefined);
  });
}

describe('the server', () => {
  it('refuses other origins, other hosts and other sites with 403', async () => {
    const json = { 'Content-Type': 'application/json' };
    expect((await raw({ ...json, Origin: 'http://elsewhere.invalid' }, 'POST')).status).toBe(403);
    expect((await raw({ Origin: 'null' })).status).toBe(403);
    expect((await raw({ Host: 'rebound.invalid:4780' })).status).toBe(403);
    expect((await raw({ ...json, 'Sec-Fetch-Site': 'cross-site' }, 'POST')).status).toBe(403);
    // Names are compared without case; the host of the request line counts before the header.
    const { port } = new URL(server.url);
    expect((await raw({ Host: `LocalHost:${port}` })).status).toBe(200);
    expect((await raw({ Host: `LOCALHOST:${port}`, Origin: `http://localhost:${port}` })).status).toBe(200);
    expect((await raw({ Host: `localhost:${port}` }, 'GET', 'http://rebound.invalid/api/studies')).status).toBe(403);
    expect((await raw({ Host: `localhost:${port}` }, 'GET', `http://localhost:${port}/api/studies`)).status).toBe(200);
    expect((await raw({ ...json, Origin: server.url.slice(0, -1) }, 'POST')).status).toBe(201);
  });

  it('sends a content security policy without inline script', async () => {
    const { headers } = await raw({});
    const policy = String(headers['content-security-policy']);
    expect(policy).toContain("script-src 'self';");
    expect(policy).toContain("frame-ancestors 'none'");
    expect(policy).not.toMatch(/script-src[^;]*unsafe/);
    expect(headers['x-content-type-options']).toBe('nosniff');
  });

  it('refuses a body over the limit, with the limit named, and one that is not JSON', async () => {
    const post = (body: string | Uint8Array<ArrayBuffer>) =>
      fetch(`${server.url}api/studies`, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body });
    const large = await post(new Uint8Array(65 * 1024 * 1024).fill(0x20));
    expect(large.status).toBe(413);
    expect((await large.json()).detail).toContain('at most 64 MB');
    expect((await post('{')).status).toBe(400);
  });

  it('serves the page at every address, never stale, and a missing file as missing', async () => {
    const page = fileURLToPath(new URL('../../web/dist', import.meta.url));
    const own = await startServer(inject('databaseUrl'), inject('migrationUrl'), page);
    const get = (path: string) => fetch(own.url + path);
    for (const path of ['', 'index.html', 'studies/some-id/fit?plot.band=none']) {
      const response = await get(path);
      expect(response.headers.get('content-type')).toContain('text/html');
      if (path !== 'index.html') expect(response.headers.get('cache-control')).toBe('no-cache');
      expect(await response.text()).toContain('<div id="app">');
    }
    const script = /assets\/[^"]+\.js/.exec(await (await get('')).text())![0];
    expect((await get(script)).headers.get('cache-control')).toContain('immutable');
    expect((await get('assets/gone-123.js')).status).toBe(404);
    expect((await get('..%2f..%2fpackage.json')).status).not.toBe(500);
    expect(await (await get('..%2f..%2fpackage.json')).text()).not.toContain('workspaces');
    await own.close();
  });

  it('takes a key once, and never leads to another host by it', async () => {
    const page = fileURLToPath(new URL('../../web/dist', import.meta.url));
    const own = await startServer(inject('databaseUrl'), inject('migrationUrl'), page, { secret: 'of this test' });
    const get = (path: string) => fetch(own.url.slice(0, -1) + path, { redirect: 'manual' });
    try {
      for (const path of ['//elsewhere.example', '///elsewhere.example', '/%5Celsewhere.example', '/studies/x']) {
        const { status, headers } = await get(`${path}?key=guess`);
        expect([status, headers.get('set-cookie')], path).toEqual([303, null]);
        expect(new URL(headers.get('location')!, own.url).origin, path).toBe(new URL(own.url).origin);
      }
      const key = new URL(own.newAddress()).search;
      expect((await get(`/${key}`)).headers.get('set-cookie')).toContain('HttpOnly');
      expect((await get(`/${key}`)).headers.get('set-cookie')).toBeNull();
      expect((await get('/api/studies')).status).toBe(401);
    } finally {
      await own.close();
    }
  });

  it('logs requests without readings, names or reasons in them', async () => {
    const id = await server.newStudy();
    const secret = column('secret-name', ['123.456789']);
    await server.change(id, { kind: 'add-columns', columns: [secret] });
    await server.change(id, { kind: 'set-aside', readings: [{ column: secret.id, row: 1, reason: 'secret-reason' }] });
    expect(server.logged()).toContain(`/studies/${id}/changes`);
    expect(server.logged()).not.toMatch(/secret-|123\.456789/);
  });

  it('works with an account that may not define tables', async () => {
    const connection = await createConnection(inject('databaseUrl'));
    await expect(connection.query('CREATE TABLE intruder (id INT)')).rejects.toMatchObject({ errno: 1142 });
    await connection.end();
  });
});

describe('with a database that ends', () => {
  it('says so with 503, works again when it is back, and has every committed change', async () => {
    const dir = mkdtempSync(join(tmpdir(), 'verdict-gone-'));
    let database = await startMariaDb(dir, { lasting: false });
    const own = await startServer(database.url, database.migrationUrl);
    try {
      const id = await own.newStudy();
      const a = column('a', ['8.01']);
      await own.change(id, { kind: 'add-columns', columns: [a] });
      const { port } = database;
      await database.kill();
      const away = await own.post(`/studies/${id}/changes`, {
        token: '12345678',
        revision: 1,
        who: 'x',
        change: { kind: 'change-study', name: 'n' },
      });
      expect(away.body).toMatchObject({ status: 503, code: 'database-gone' });
      database = await startMariaDb(dir, { port, lasting: false });
      expect(await own.study(id)).toMatchObject({ revision: 1, rowCount: 1 });
      expect((await own.change(id, { kind: 'change-study', name: 'back' })).status).toBe(200);
    } finally {
      await own.close();
      await database.stop();
      rmSync(dir, { recursive: true, force: true });
    }
  });

  it('stops a left-over instance on the same directory before it starts a new one', async () => {
    const dir = mkdtempSync(join(tmpdir(), 'verdict-left-'));
    const left = await startMariaDb(dir, { lasting: false });
    const next = await startMariaDb(dir, { lasting: false });
    try {
      expect(next.pid).not.toBe(left.pid);
      expect(() => process.kill(left.pid, 0)).toThrow();
    } finally {
      await next.stop();
      rmSync(dir, { recursive: true, force: true });
    }
  });
});

describe('the demo', () => {
  it('is 48 tiles within limits, 60 wide batches of glaze with their troubles, 54 tiles broken, 144 sorted out and 60 sacks with a made-up population, loaded once', async () => {
    const dir = mkdtempSync(join(tmpdir(), 'verdict-demo-'));
    const database = await startMariaDb(dir, { lasting: false });
    const own = await startServer(database.url, database.migrationUrl);
    const { db, close } = openDatabase(database.url);
    try {
      const folder = new URL('../../demo/', import.meta.url);
      await loadDemo(db, folder);
      await loadDemo(db, folder);
      const [tiles, glaze, strength, sorted, sacks, ...others] = await listStudies(db, false);
      expect(others).toEqual([]);
      expect(tiles).toMatchObject({ n: 48, subject: 'thickness', example: true, openedAt: null });
      expect(tiles!.question).toContain('treated as normal');
      const thickness = (await own.study(tiles!.id)).columns.find(({ name }) => name === 'thickness');
      expect(thickness).toMatchObject({ unit: 'mm', lowerLimit: 7.5, target: 8, upperLimit: 8.5, claimedSd: 0.1 });
      expect(sorted).toMatchObject({ n: 144, subject: 'warpage on the line' });
      expect(sacks).toMatchObject({ n: 60, subject: 'filled mass' });
      const all = (await own.study(sacks!.id)).columns.find(({ name }) => name === 'all fillings')!;
      const population = await readSample(db, sacks!.id, all.id);
      expect(population.sample).toMatchObject({ resolution: 0.5, missing: 0, unit: 'g' });
      expect(population.sample.values).toHaveLength(100_000);
      expect(strength).toMatchObject({ n: 54, subject: 'breaking force' });
      const columns = (await own.study(strength!.id)).columns;
      expect(columns.find(({ name }) => name === 'water absorption')).toMatchObject({ unit: '%', upperLimit: 1 });
      expect(glaze).toMatchObject({ n: 60, rowCount: 60, subject: 'viscosity' });
      const density = (await own.study(glaze!.id)).columns.find(({ name }) => name === 'density')!;
      const { sample } = await readSample(db, glaze!.id, density.id);
      expect(sample).toMatchObject({ unreadable: 1, unit: 'g/cm³', resolution: 0.001 });
    } finally {
      await close();
      await own.close();
      await database.stop();
      rmSync(dir, { recursive: true, force: true });
    }
  });
});
