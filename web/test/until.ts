import { vi } from 'vitest';

/** Waits for what a check asks: as long as it takes on a busy machine. */
export const until = <T>(check: () => T | Promise<T>) => vi.waitFor(check, { timeout: 120_000, interval: 20 });
