import type { SheetCell } from '@verdict/core/analyses';
import type { Mark, Tone } from '../marks.js';
import type { Cell } from '../picture.js';

/** Room at the edges, as a share of what lies between them. */
const AIR = 0.06;

function aired(values: readonly number[], air = AIR): [number, number] {
  const least = values.reduce((a, b) => Math.min(a, b), Infinity);
  const greatest = values.reduce((a, b) => Math.max(a, b), -Infinity);
  const room = (greatest - least || 1) * air;
  return [least - room, greatest + room];
}

/** A plot of scores with the line on which readings stand that follow their distribution, or bars under the fitted curve. */
export function cellMarks(cell: SheetCell, radius: number, tone: Tone = 'ink'): Pick<Cell, 'marks' | 'x' | 'y'> {
  if (cell.kind === 'plot') {
    const y = aired([cell.scores[0]!, cell.scores.at(-1)!]);
    const x = aired([...cell.readings, cell.scores[0]!, cell.scores.at(-1)!]);
    const line: Mark = { kind: 'line', x: y, y, tone: 'green', width: 1.4 };
    const points: Mark = { kind: 'points', x: cell.readings, y: cell.scores, tone, marker: 'circle', radius };
    return { marks: [line, points], x, y };
  }
  const { edges, heights, curve } = cell;
  const top = Math.max(...heights, ...curve.y);
  return {
    marks: [
      { kind: 'bars', edges, heights, tone: 'green' },
      { kind: 'line', x: curve.x, y: curve.y, tone: 'ink', width: 1.4 },
    ],
    x: aired([edges[0]!, edges.at(-1)!], 0.03),
    y: [0, top * 1.08],
  };
}
