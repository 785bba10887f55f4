import type { Announced } from '@verdict/contract';

/** What the store refuses, with the sentence that the analyst reads. HTTP turns the code into a status. */
export class StoreError extends Error {
  constructor(
    readonly code:
      'not-found' | 'stale' | 'ruled' | 'not-ruled' | 'invalid' | 'nothing-to-undo' | 'built-on' | 'data-changed',
    message: string,
    readonly extra: { field?: string; revision?: number; changes?: string[]; between?: Announced[] } = {},
  ) {
    super(message);
  }
}

export const notFound = (what: string) => new StoreError('not-found', `This ${what} does not exist, or no longer.`);
