import { extremeWords, RULE_FACTS, studyTest, type OutliersResult } from '@verdict/core/analyses';
import { formatFigure, groupThousands } from '@verdict/core/format';
import type { LegendEntry } from '../legend.js';
import type { Mark } from '../marks.js';
import type { Axis, Hit, Panels } from '../picture.js';
import { visibleReadings } from './in-order.js';

/** A line far beyond the readings would squeeze them together: it stands at the edge instead. */
const FURTHEST = 0.5;
/** Cells along the strip, so that readings in one stand one over the other. */
const CELLS = 150;
/** As many marks in the highest stack. */
const HIGHEST = 24;

/** Lines at values of one sort: what they are, and how they are drawn. */
interface Lines {
  at: number[];
  words: string;
  tone: 'green' | 'ochre' | 'soft';
  dash?: readonly number[];
}

/** Mean, fences, and the lines beyond which the rule of the study would flag one further reading. */
function linesOf(result: OutliersResult): Lines[] {
  const { mean, fences, resolution, rule } = result;
  const { lines } = studyTest(result);
  const told = (all: readonly number[]) => all.map((x) => formatFigure(x, 'location', resolution)).join(' and ');
  const own = lines ? [lines.lower, lines.upper].filter((at) => at !== null) : [];
  const fence: Lines = { at: fences, words: `fences ${told(fences)}`, tone: 'soft', dash: [2, 4] };
  const named: Lines = {
    at: own,
    words: `${RULE_FACTS[rule].short}, a further reading: ${told(own)}`,
    tone: 'ochre',
  };
  return [
    { at: [mean], words: `mean ${told([mean])}`, tone: 'green' },
    ...(own.length > 0 ? [named] : []),
    ...(rule === 'fences' ? [] : [fence]),
  ];
}

function valueAxis({ readings, unit }: OutliersResult, lines: readonly Lines[], column: string): Axis {
  let [least, greatest] = [Infinity, -Infinity];
  for (const x of readings) {
    if (x < least) least = x;
    if (x > greatest) greatest = x;
  }
  const range = greatest - least;
  let [from, to] = [least, greatest];
  for (const at of lines.flatMap((some) => some.at)) {
    if (at < from && least - at < FURTHEST * range) from = at;
    if (at > to && at - greatest < FURTHEST * range) to = at;
  }
  const air = (to - from) * 0.03;
  return { from: from - air, to: to + air, title: unit ? `${column}, ${unit}` : column };
}

const ruleMarks = (lines: readonly Lines[], across: 'x' | 'y'): Mark[] =>
  lines.flatMap(({ at, tone, dash }) =>
    at.map((one): Mark => ({ kind: 'rule', across, stays: true, at: one, tone, ...(dash ? { dash } : {}) })),
  );
const legendOf = (lines: readonly Lines[]) =>
  lines.map(({ words, tone, dash }) => ({ words, tone, ...(dash ? { dash } : {}) }));

/** What pointing at a reading says. */
function wordsAt(result: OutliersResult, i: number): string {
  const { rows, readings, resolution, unit, extremes } = result;
  const row = rows[i]!;
  const far = extremes.find((one) => one.row === row);
  const value = `row ${row}: ${formatFigure(readings[i]!, 'reading', resolution)}${unit ? ` ${unit}` : ''}`;
  return far ? `${value}, ${extremeWords(far, result)}` : value;
}

/** The readings that can be told apart; the farthest are always among them. */
function shownOf(result: OutliersResult): number[] {
  const shown = visibleReadings({ rows: result.rows, values: result.readings });
  if (shown.length === result.rows.length) return shown;
  const far = new Set(result.extremes.map(({ row }) => row));
  const known = new Set(shown);
  result.rows.forEach((row, i) => far.has(row) && known.add(i));
  return [...known];
}

/** Readings as points, those that the rule of the study names filled. */
function pointMarks(
  result: OutliersResult,
  shown: readonly number[],
  x: readonly number[],
  y: readonly number[],
): Mark[] {
  const named = new Set(studyTest(result).rows ?? []);
  const radius = shown.length > 300 ? 2.4 : 3.8;
  const some = (isNamed: boolean): Mark => {
    const places = [...shown.keys()].filter((k) => named.has(result.rows[shown[k]!]!) === isNamed);
    return {
      ...{ kind: 'points', marker: 'circle', tone: isNamed ? 'ochre' : 'ink', filled: isNamed },
      radius: isNamed ? 5 : radius,
      x: places.map((k) => x[k]!),
      y: places.map((k) => y[k]!),
    };
  };
  return [some(false), some(true)];
}

const hitsOf = (result: OutliersResult, shown: readonly number[], x: readonly number[], y: readonly number[]): Hit[] =>
  shown.map((i, k) => ({
    ...{ panel: 0, x: [x[k]!, x[k]!], y: [y[k]!, y[k]!], row: result.rows[i]! },
    words: wordsAt(result, i),
  }));

/** All readings along one line, one over the other where they would cover one another; of very many a mark for so many. */
export function stripPanels(result: OutliersResult, column: string): Panels {
  const lines = linesOf(result);
  const axis = valueAxis(result, lines, column);
  const { readings, rows } = result;
  const cells = Int32Array.from(readings, (x) => Math.round(((x - axis.from) / (axis.to - axis.from)) * CELLS));
  const counts = new Map<number, number>();
  for (const cell of cells) counts.set(cell, (counts.get(cell) ?? 0) + 1);
  const per = Math.ceil(Math.max(...counts.values()) / HIGHEST);
  const stacked = new Map<number, number>();
  const far = new Set(result.extremes.map(({ row }) => row));
  const shown: number[] = [];
  const heights: number[] = [];
  cells.forEach((cell, i) => {
    const before = stacked.get(cell) ?? 0;
    stacked.set(cell, before + 1);
    if (before % per !== 0 && !far.has(rows[i]!)) return;
    shown.push(i);
    heights.push(Math.floor(before / per) + 0.5);
  });
  const highest = heights.reduce((a, b) => Math.max(a, b), 0);
  const x = shown.map((i) => readings[i]!);
  const many: LegendEntry = {
    ...{ words: `a mark for every ${groupThousands(per)} readings`, tone: 'ink', sample: 'marker', marker: 'circle' },
  };
  return {
    x: axis,
    y: { from: 0, to: Math.max(8, (highest + 0.5) * 1.15), title: '', ticks: [] },
    panels: [{ name: '', marks: [...ruleMarks(lines, 'x'), ...pointMarks(result, shown, x, heights)] }],
    hits: hitsOf(result, shown, x, heights),
    legend: [...legendOf(lines), ...(per > 1 ? [many] : [])],
  };
}

/** The same over the rows: was it a time, a shift, a batch? */
export function rowsPanels(result: OutliersResult, column: string): Panels {
  const lines = linesOf(result);
  const { rows, readings } = result;
  const [first, last] = [rows[0]!, rows[rows.length - 1]!];
  const air = Math.max(0.6, (last - first) * 0.015);
  const shown = shownOf(result);
  const x = shown.map((i) => rows[i]!);
  const y = shown.map((i) => readings[i]!);
  return {
    x: { from: first - air, to: last + air, title: 'row', whole: true },
    y: valueAxis(result, lines, column),
    panels: [{ name: '', marks: [...ruleMarks(lines, 'y'), ...pointMarks(result, shown, x, y)] }],
    hits: hitsOf(result, shown, x, y),
    legend: legendOf(lines),
  };
}

/** How far mean or sd moves when each reading in turn is left out. */
export function influencePanels(result: OutliersResult, column: string, of: 'mean' | 'sd'): Panels {
  const { rows, influence, unit, resolution } = result;
  const all = result[of];
  const moves = influence[of].map((without) => without - all);
  const shown = shownOf({ ...result, readings: moves });
  const x = shown.map((i) => rows[i]!);
  const y = shown.map((i) => moves[i]!);
  const [low, high] = moves.reduce(([a, b], move) => [Math.min(a, move), Math.max(b, move)], [0, 0]);
  const air = (high - low) * 0.06 || 1;
  const [first, last] = [rows[0]!, rows[rows.length - 1]!];
  const side = Math.max(0.6, (last - first) * 0.015);
  const told = (value: number) => formatFigure(value, 'spread', resolution);
  return {
    x: { from: first - side, to: last + side, title: 'row left out', whole: true },
    y: { from: low - air, to: high + air, title: `change of the ${of} of ${column}${unit ? `, ${unit}` : ''}` },
    panels: [
      {
        name: '',
        marks: [{ kind: 'rule', across: 'y', at: 0, tone: 'green' }, ...pointMarks(result, shown, x, y)],
      },
    ],
    legend: [{ words: `${of} of all readings ${told(all)}`, tone: 'green' }],
    hits: shown.map((i, k) => ({
      ...{ panel: 0, x: [x[k]!, x[k]!], y: [y[k]!, y[k]!], row: rows[i]! },
      words: `without row ${rows[i]}: ${of} ${told(influence[of][i]!)}, ${moves[i]! > 0 ? '+' : ''}${told(moves[i]!)}`,
    })),
  };
}
