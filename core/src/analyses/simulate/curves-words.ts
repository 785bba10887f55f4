import { formatFigure, formatPercent, formatPercentOf, formatValue, groupThousands } from '../../numeric/format.js';
import type { Note, Piece } from '../../road/analysis.js';
import { levelNote } from '../../road/cautions.js';
import type { FoundFigure } from '../../road/figure.js';
import type { Curve, CurvePoint, CurvesResult } from './curves.js';
import type { Along, CurvesRequest } from './curves-settings.js';

export const ALONG_WORDS: Readonly<Record<Along, string>> = {
  n: 'readings in a sample',
  shiftInSd: 'shift, in sd',
  shift: 'shift',
  ratio: 'times as wide',
  mixedShare: 'share that is different',
};

/** "n = 10", "a shift of 0.5 sd". */
export function placeWords(value: number, along: Along, unit = ''): string {
  const plain = formatValue(value);
  switch (along) {
    case 'n':
      return `n = ${groupThousands(value)}`;
    case 'shiftInSd':
      return `a shift of ${plain} sd`;
    case 'shift':
      return `a shift of ${plain}${unit ? `\u00a0${unit}` : ''}`;
    case 'ratio':
      return value === 1 ? 'a spread that is the same' : `a spread ${plain} times as wide`;
    case 'mixedShare':
      return `${formatPercent(value)} that are different`;
  }
}

const percent = (share: number) => formatPercentOf(share, 1 - share, 3);
/** By formula where that is exact. */
export const knownShare = ({ exact, share }: CurvePoint): number | null => exact ?? share;

/** Where a chance is reached: of readings the next whole number. */
export function crossingWords(crossing: number, along: Along, unit: string): string {
  if (along === 'n') return `n = ${groupThousands(Math.ceil(crossing - 1e-9))}`;
  return `about ${placeWords(Number(crossing.toPrecision(2)), along, unit)}`;
}

function powerWords({ name, points, crossing }: Curve, { along, power, unit }: CurvesResult): Piece[] {
  const last = points.at(-1)!;
  if (crossing !== null)
    return [
      { text: `The ${name} notices it in ${formatPercent(power)} of samples from ` },
      { text: crossingWords(crossing, along, unit), strong: true },
      { text: ' on. ' },
    ];
  const share = knownShare(last);
  const first = knownShare(points[0]!);
  if (share === null || first === null) return [];
  if (first >= power)
    return [{ text: `The ${name} notices it in ${percent(first)} already at ${placeWords(points[0]!.value, along, unit)}. ` }];
  return [
    { text: `The ${name} notices it in ` },
    { text: percent(share), strong: true },
    { text: ` at ${placeWords(last.value, along, unit)}, which is not yet ${formatPercent(power)}. ` },
  ];
}

/** Where nothing is there to notice: the place at which it errs most. */
function errorWords({ name, points }: Curve, { along, alpha, unit }: CurvesResult): Piece[] {
  const known = points.filter((point) => knownShare(point) !== null);
  if (known.length === 0) return [];
  const worst = known.reduce((most, point) => (knownShare(point)! > knownShare(most)! ? point : most));
  const share = knownShare(worst)!;
  const over = worst.exact === null ? (worst.lower ?? 0) > alpha : share > alpha * 1.001;
  return [
    { text: `The ${name} errs in ` },
    { text: percent(share), strong: true },
    { text: ` at ${placeWords(worst.value, along, unit)}, ${over ? `more than the ${formatPercent(alpha)} that its level promises` : `as its level of ${formatPercent(alpha)} allows`}. ` },
  ];
}

const FINDING_TESTS = 3;

export function curvesFinding(result: CurvesResult): Piece[] {
  const told = result.curves.slice(0, FINDING_TESTS).flatMap((curve) =>
    curve.points.every(({ holds }) => holds) ? errorWords(curve, result) : powerWords(curve, result),
  );
  const more = result.curves.length - FINDING_TESTS;
  return more > 0 ? [...told, { text: `${more === 1 ? 'Another test is' : `${more} more tests are`} in the table.` }] : told;
}

export function curvesNotes(result: CurvesResult, asked: CurvesRequest): Note[] {
  const notes: Note[] = levelNote(asked.alpha);
  const none = result.curves.flatMap(({ points }) => points).reduce((sum, point) => sum + point.undefined, 0);
  if (none > 0)
    notes.push({ code: 'undefined', text: `${groupThousands(none)} times there was no p, since all readings of a sample were alike: counted as not noticed.` });
  if (result.curves.some(({ points }) => points.some(({ exact }) => exact !== null)))
    notes.push({ code: 'exact', quiet: true, text: 'Where a formula is exact, the curve and what is read off are by the formula; the dots are simulated.' });
  return notes;
}

/** One row a place, one column a test. */
export const curvesColumns = ({ curves }: CurvesResult): string[] => curves.map(({ name }) => name);
export function curvesFigures(result: CurvesResult): FoundFigure[] {
  const { curves, along, unit } = result;
  return (curves[0]?.points ?? []).map(({ value }, i) => ({
    ...{ key: String(i), note: '', formula: '' },
    name: along === 'n' ? `n = ${groupThousands(value)}` : along === 'mixedShare' ? formatPercent(value) : formatValue(value),
    meaning: `How often each test has a p below the level at ${placeWords(value, along, unit)}.`,
    texts: curves.map(({ points }) => {
      const { share, exact, lower, upper } = points[i]!;
      if (share === null) return exact === null ? '–' : percent(exact);
      const half = ((upper! - lower!) / 2) * 100;
      return `${percent(share)} ± ${formatFigure(half, 'statistic')}${exact === null ? '' : ` (exact ${percent(exact)})`}`;
    }),
  }));
}

export const curvesTable = ({ curves, along }: CurvesResult): (string | number)[][] => [
  ['test', along, 'n', 'below the level', 'samples', 'share', 'lower', 'upper', 'exact'],
  ...curves.flatMap(({ name, points }) =>
    points.map(({ value, sizes, count, replicates, share, lower, upper, exact }) => [
      ...[name, value, sizes.join(' and '), count, replicates, share ?? '', lower ?? '', upper ?? '', exact ?? ''],
    ]),
  ),
];
