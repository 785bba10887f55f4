import type { InOrderResult } from '@verdict/core/analyses';
import { formatFigure, groupThousands } from '@verdict/core/format';
import type { Mark } from '../marks.js';
import type { Axis, Hit, Panels } from '../picture.js';
import { boundMarks, readingWords, valueAxis, type Setting } from '../value-axis.js';

type Part = InOrderResult['parts'][number];
/** Beyond this many readings, marks that cover one another within four pixels are drawn once. */
const THIN_FROM = 2_000;
const CELLS = { across: 175, up: 95 };
/** Neighbouring rows are joined by a thin line as long as it can be followed. */
const MOST_JOINED = 400;

/** The readings whose marks can be told apart; the least and the greatest are always among them. */
export function visibleReadings({ rows, values }: { rows: ArrayLike<number>; values: ArrayLike<number> }): number[] {
  const all = Array.from(values, (_, i) => i);
  if (all.length <= THIN_FROM) return all;
  let [least, greatest] = [0, 0];
  for (const i of all) {
    if (values[i]! < values[least]!) least = i;
    if (values[i]! > values[greatest]!) greatest = i;
  }
  const [first, rowSpan] = [rows[0]!, rows[rows.length - 1]! - rows[0]! || 1];
  const span = values[greatest]! - values[least]! || 1;
  const taken = new Set<number>();
  return all.filter((i) => {
    const column = Math.round(((rows[i]! - first) / rowSpan) * CELLS.across);
    const cell = column * 1_000 + Math.round(((values[i]! - values[least]!) / span) * CELLS.up);
    if (taken.has(cell) && i !== least && i !== greatest) return false;
    taken.add(cell);
    return true;
  });
}

/** Lines between readings of neighbouring rows: none across a row without a reading. */
function joins({ rows, values }: Part): Mark[] {
  if (rows.length > MOST_JOINED) return [];
  const marks: Mark[] = [];
  for (let from = 0; from < rows.length;) {
    let to = from;
    while (to + 1 < rows.length && rows[to + 1]! - rows[to]! === 1) to++;
    if (to > from) {
      const part = { x: rows.slice(from, to + 1), y: values.slice(from, to + 1) };
      marks.push({ kind: 'line', ...part, tone: 'gridLine', width: 1.2 });
    }
    from = to + 1;
  }
  return marks;
}

/** Readings over their rows, about the mean, with the limits. */
export function orderPanels(result: InOrderResult, setting: Setting): Panels {
  const { parts, grouped, resolution } = result;
  let [least, greatest, firstRow, lastRow] = [Infinity, -Infinity, Infinity, 0];
  for (const { values, rows } of parts) {
    for (const value of values) {
      if (value < least) least = value;
      if (value > greatest) greatest = value;
    }
    firstRow = Math.min(firstRow, rows[0]!);
    lastRow = Math.max(lastRow, rows.at(-1)!);
  }
  const y = valueAxis(result, least, greatest, setting);
  const air = Math.max(0.6, (lastRow - firstRow) * 0.015);
  const x: Axis = { from: firstRow - air, to: lastRow + air, title: setting.titles.heightTitle ?? 'row', whole: true };
  const hits: Hit[] = [];
  const panels = parts.map((part, panel) => {
    const { name, n, rows, values, mean } = part;
    const shown = visibleReadings(part);
    for (const i of shown) {
      const words = `${grouped ? `${name}, ` : ''}row ${rows[i]}: ${readingWords(result, values[i]!)}`;
      hits.push({ panel, x: [rows[i]!, rows[i]!], y: [values[i]!, values[i]!], words, row: rows[i]! });
    }
    const words = grouped ? '' : `mean ${formatFigure(mean, 'location', resolution)}`;
    const rules: Mark[] = [
      { kind: 'rule', across: 'y', at: mean, tone: 'green', words, wordsAt: 'start' },
      ...boundMarks(result, y, setting, 'y'),
    ];
    const points: Mark = {
      ...{ kind: 'points', tone: 'ink', marker: 'circle', radius: shown.length > 300 ? 2.2 : 3.6 },
      x: shown.map((i) => rows[i]!),
      y: shown.map((i) => values[i]!),
    };
    // Lines lie behind readings, unless these are so many that nothing behind them shows.
    const marks = shown.length > THIN_FROM ? [points, ...rules] : [...joins(part), ...rules, points];
    return { name: grouped ? `${name}, ${groupThousands(n)}` : '', marks };
  });
  return { x, y, panels, hits };
}
