import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { startMariaDb } from '../../scripts/mariadb.mjs';
import { column, startServer } from './running.js';

describe('a power cut of the database in the middle of editing', () => {
  it('leaves every change there wholly or not at all, and none that was confirmed is missing', async () => {
    const dir = mkdtempSync(join(tmpdir(), 'verdict-crash-'));
    let database = await startMariaDb(dir);
    const server = await startServer(database.url, database.migrationUrl);
    try {
      const id = await server.newStudy();
      const [a, b] = [column('a', ['0']), column('b', ['0'])];
      await server.change(id, { kind: 'add-columns', columns: [a, b] });
      for (let round = 1; round <= 4; round++) {
        let confirmed = (await server.study(id)).revision;
        let cut = false;
        // Both columns get the revision that the change will have: a half change would show as two different numbers.
        const editing = (async () => {
          while (!cut) {
            const text = String(confirmed + 1);
            const runs = [a, b].map(({ id: c }) => ({ column: c, row: 1, texts: [text] }));
            const answer = await server.change(id, { kind: 'edit-cells', runs }, confirmed);
            if (answer.status !== 200) return;
            confirmed = answer.body.revision;
          }
        })();
        await expect.poll(() => confirmed).toBeGreaterThan(2 + round * 3);
        const { port } = database;
        await database.kill();
        cut = true;
        await editing;
        database = await startMariaDb(dir, { port });
        const { revision } = await server.study(id);
        const { cells } = await server.get<{ cells: Record<string, string[]> }>(`/studies/${id}/cells`);
        expect([confirmed, confirmed + 1]).toContain(revision);
        expect([cells[a.id]![0], cells[b.id]![0]]).toEqual([String(revision), String(revision)]);
      }
    } finally {
      await server.close();
      await database.stop();
      rmSync(dir, { recursive: true, force: true });
    }
  });
});
