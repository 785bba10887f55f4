import { askedObjection, changeSchema, objectionTo, type Study, type StudyCells } from '@verdict/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { createChance } from '../../fuzz/chance.js';
import { someChange } from '../../fuzz/changes.js';
import { createAsker, request, someStudy } from '../../fuzz/server.js';
import { applyLocally, studyNow } from '../../web/src/stores/apply-locally.js';
import { sharedServer, type TestServer } from './running.js';

let server: TestServer;
beforeAll(async () => {
  server = await sharedServer();
});
afterAll(() => server.close());

/** What the page shows of a study: everything but who set a reading aside and when, which the server writes. */
const marks = (all: Study['setAside']) => all.map(({ column, row, reason }) => `${column}/${row}: ${reason}`).sort();
const shown = (
  { revision: _r, canUndo: _u, canRedo: _d, entries: _e, head: _h, setAside, leftIn, ...study }: Study,
  cells: StudyCells,
) => ({
  ...study,
  aside: marks(setAside),
  left: marks(leftIn),
  cells: Object.fromEntries(study.columns.filter((one) => !one.derivation).map(({ id }) => [id, cells[id]])),
});

describe('page and server', () => {
  it('refuse the same changes, and show the same study after those they do not', async () => {
    const asker = createAsker(`${server.url}api`);
    const chance = createChance(11);
    const id = await someStudy(asker, chance);
    let done = 0;
    for (let i = 0; i < 50; i++) {
      const study = await server.study(id);
      const cells = await server.cellsOf(id);
      const change = changeSchema.parse(someChange(chance, await asker.saved(id)));
      const objection = askedObjection(change) ?? objectionTo(change, studyNow(study));
      const answer = await asker.post(`/studies/${id}/changes`, request(chance, study.revision, { change }));
      const said = `${JSON.stringify(change)} ${JSON.stringify(answer.body)}`;
      // Whether a column has values to freeze is for the server alone to say.
      if (change.kind === 'freeze-column' && !objection && answer.status === 422) continue;
      expect(answer.status === 200, said).toBe(objection === null);
      if (objection) continue;
      done++;
      const local = { study, cells, removed: new Map() };
      applyLocally(local, change, 'fuzzer', 'now');
      expect(shown(local.study, local.cells), said).toEqual(shown(await server.study(id), await server.cellsOf(id)));
    }
    expect(done).toBeGreaterThan(16);
  });
});
