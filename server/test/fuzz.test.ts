import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { fuzz } from '../../fuzz/fuzz.js';
import { sharedServer, type TestServer } from './running.js';

/** Enough to meet every kind of change; `npm run fuzz` goes on for as long as one likes. */
const TRIES = 250;

let server: TestServer;
beforeAll(async () => {
  server = await sharedServer();
});
afterAll(() => server.close());

describe('crafted requests', () => {
  it('are never answered 500, and every change that is accepted is taken back wholly', async () => {
    const { tries, accepted, opened, faults, counts } = await fuzz(`${server.url}api`, { seed: 2026, tries: TRIES });
    expect(faults).toEqual([]);
    // It must have come to something: changes accepted, files opened, and much refused.
    expect(tries).toBeGreaterThanOrEqual(TRIES);
    expect(accepted).toBeGreaterThan(TRIES / 24);
    expect(opened).toBeGreaterThan(2);
    expect(counts[422]).toBeGreaterThan(TRIES / 7);
  });
});
