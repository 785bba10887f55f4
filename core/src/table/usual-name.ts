import { freeName, LONGEST_NAME } from '../readings/block.js';
import type { Derivation, DerivationKind } from './derivation.js';

const NAMES: Record<DerivationKind, (source: string) => string> = {
  formula: () => 'result',
  'standard-score': (source) => `score of ${source}`,
  'given-score': (source) => `score of ${source}`,
  distance: (source) => `deviation of ${source}`,
  rank: (source) => `rank of ${source}`,
  share: (source) => `proportion of ${source}`,
  transformed: (source) => `${source} transformed`,
  rounded: (source) => `${source} rounded`,
  'made-up': () => 'simulated',
};
/** Room for the number that tells two of one name apart. */
const LONGEST = LONGEST_NAME - 6;

/** What a derived column is called where nobody says otherwise, free among the names taken. */
export const usualName = (kind: DerivationKind, source: string, taken: readonly string[]): string =>
  freeName(NAMES[kind](source).slice(0, LONGEST), taken);

interface Named {
  id: string;
  name: string;
  derivation: Derivation | null;
}

/** The columns that bear their usual name after this one, and those after them, with their names once it is renamed. */
export function renamedWith(columns: readonly Named[], id: string, name: string): { column: string; name: string }[] {
  const before = columns.find((column) => column.id === id);
  if (!before) return [];
  const renames: { column: string; name: string }[] = [];
  const nameNow = (of: Named) =>
    of.id === id ? name : (renames.find(({ column }) => column === of.id)?.name ?? of.name);
  const waiting = [before];
  while (waiting.length > 0) {
    const source = waiting.shift()!;
    for (const column of columns) {
      const { derivation } = column;
      if (
        !derivation ||
        !('source' in derivation) ||
        derivation.source !== source.id ||
        nameNow(column) !== column.name
      )
        continue;
      if (column.id === id || usualName(derivation.kind, source.name, []) !== column.name) continue;
      const others = columns.filter((other) => other !== column).map(nameNow);
      renames.push({ column: column.id, name: usualName(derivation.kind, nameNow(source), others) });
      waiting.push(column);
    }
  }
  return renames;
}
