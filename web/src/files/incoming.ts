import type { StudyColumn } from '@verdict/contract';

/** What is said about a column beside its cells, where a file brings it along. */
export type Facts = Partial<Pick<StudyColumn, 'unit' | 'kind' | 'resolution' | 'lowerLimit' | 'target' | 'upperLimit'>>;

export interface Sheet {
  name: string;
  /** Cells as they are shown, from A1 on. */
  rows: string[][];
}

/** Something on its way into the table: seen first, taken or left then. */
export type Incoming =
  | { kind: 'text'; source: string; text: string; file: Blob; encoding: 'utf-8' | 'windows-1252' }
  | { kind: 'rows'; source: string; rows: string[][]; facts: Record<string, Facts> }
  | { kind: 'sheets'; source: string; sheets: Sheet[] };

/** A file that was read: readings, a whole study, or the reason why it is neither. */
export type Opened = { incoming: Incoming } | { study: File } | { refusal: string };

export const pasted = (text: string): Incoming => ({
  kind: 'text',
  source: 'Pasted readings',
  text,
  file: new Blob([text]),
  encoding: 'utf-8',
});
