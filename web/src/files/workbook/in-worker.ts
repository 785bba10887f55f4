import type { Opened } from '../incoming.js';
import type { SheetColumn } from './write-workbook.js';

/** A spreadsheet that takes longer to read is given up. */
const LONGEST_MILLISECONDS = 60_000;

/** Reads a workbook beside the page, which stays alive meanwhile; where there are no workers, here. */
export async function openWorkbook(source: string, bytes: Uint8Array): Promise<Opened> {
  if (typeof Worker === 'undefined') return (await import('./read-workbook.js')).readWorkbook(source, bytes);
  const { readInWorker } = await import('../../workers/workbook-pool.js');
  return readInWorker(source, bytes, LONGEST_MILLISECONDS);
}

/** Columns as a workbook of one sheet, written beside the page too. */
export async function makeWorkbook(title: string, columns: readonly SheetColumn[]): Promise<Blob> {
  if (typeof Worker === 'undefined') return (await import('./write-workbook.js')).writeWorkbook(title, columns);
  const { writeInWorker } = await import('../../workers/workbook-pool.js');
  return writeInWorker(title, columns);
}
