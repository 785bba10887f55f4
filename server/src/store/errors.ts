import type { Announced } from '@verdict/contract';

export type RefusalCode =
  | 'not-found'
  | 'stale'
  | 'ruled'
  | 'not-ruled'
  | 'binned'
  | 'invalid'
  | 'not-json'
  | 'encoding'
  | 'idle'
  | 'too-large'
  | 'under-way'
  | 'busy'
  | 'disk-full'
  | 'nothing-to-undo'
  | 'built-on'
  | 'data-changed';
export interface RefusalExtra {
  field?: string;
  revision?: number;
  changes?: string[];
  between?: Announced[];
}

/** What the store refuses, with the sentence that the analyst reads. HTTP turns the code into a status. */
export class StoreError extends Error {
  constructor(
    readonly code: RefusalCode,
    message: string,
    readonly extra: RefusalExtra = {},
  ) {
    super(message);
  }
}

export const notFound = (what: string) => new StoreError('not-found', `This ${what} does not exist or was deleted.`);

/** For a full disk: no room to store something, or to sort a list on disk. */
export const DISK_FULL = 'The disk of this computer is full. Free some space; everything stored before is kept.';

/** Said where another change holds the study for too long. */
export const BUSY = 'The study is busy with another change. Nothing was stored; try again.';
