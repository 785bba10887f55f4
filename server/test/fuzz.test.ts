import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { fuzz } from '../../fuzz/fuzz.js';
import { startServer, type TestServer } from './running.js';

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

describe('crafted requests', () => {
  it(
    'are never answered 500, and every change that is accepted is taken back wholly',
    { timeout: 180_000 },
    async () => {
      const { tries, accepted, opened, faults, counts } = await fuzz(`${server.url}api`, { seed: 2026, tries: 1_200 });
      expect(faults).toEqual([]);
      // It must have come to something: changes accepted, files opened, and much refused.
      expect(tries).toBeGreaterThanOrEqual(1_200);
      expect(accepted).toBeGreaterThan(50);
      expect(opened).toBeGreaterThan(5);
      expect(counts[422]).toBeGreaterThan(180);
    },
  );
});
