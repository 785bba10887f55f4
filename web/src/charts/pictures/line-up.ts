import type { LineUpResult } from '@verdict/core/analyses';
import type { Sheet } from '../picture.js';
import { inRows } from '../sheet.js';
import { cellMarks } from './sheet-cells.js';

const COLUMNS = 5;
/** Marks of few readings are larger than those of many. */
const radiusFor = (n: number) => (n <= 60 ? 2.2 : n <= 200 ? 1.6 : 1.1);

/** The sheet of a line-up: twenty places, one of which may be about to be picked; where the readings stand once that is told. */
export function lineUpSheet(result: LineUpResult, column: string, about: number | null): Sheet | null {
  const { cells, place, n } = result;
  if (!cells) return null;
  const boxes = inRows(cells.length, COLUMNS);
  return {
    cells: cells.map((cell, i) => {
      const own = i + 1 === place;
      const name = own ? `${i + 1} ${column}` : `${i + 1}`;
      return {
        ...cellMarks(cell, radiusFor(n)),
        name,
        words: own ? `position ${i + 1}: the readings of ${column}` : `position ${i + 1}`,
        box: boxes[i]!,
        chosen: i + 1 === about,
        tinted: own,
      };
    }),
  };
}
