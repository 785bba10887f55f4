import { formatPercent, formatPercentOf, formatValue, groupThousands } from '../../numeric/format.js';
import { clopperPearson } from '../../numeric/clopper-pearson.js';
import { simulatedTest } from '../../simulation/tests/registry.js';
import type { Note, Piece } from '../../road/analysis.js';
import { levelNote } from '../../road/cautions.js';
import type { FoundFigure } from '../../road/figure.js';
import type { Curve, CurvePoint, CurvesResult } from './curves-result.js';
import type { Along, CurvesRequest } from './curves-settings.js';
import { listed } from '../../numeric/grammar.js';

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

/** "n = 34 by t, n = 35 by signed ranks", the least first. */
function crossingsWords({ curves, along, unit }: CurvesResult): string {
  const crossed = curves.filter(({ crossing }) => crossing !== null).sort((a, b) => a.crossing! - b.crossing!);
  return crossed.map(({ short, crossing }) => `${crossingWords(crossing!, along, unit)} by ${short}`).join(', ');
}

/** The points that are known, first and last of them. */
const knownPoints = ({ points }: Curve) => points.filter((point) => knownShare(point) !== null);
const firstOf = (curve: Curve) => knownPoints(curve)[0]!;
const lastOf = (curve: Curve) => knownPoints(curve).at(-1)!;

/** Which test is the first to notice it, and which do not. */
function powerWords(result: CurvesResult, curves: readonly Curve[]): Piece[] {
  const { along, power, unit, effect } = result;
  const wanted = formatPercent(power);
  const what = along === 'n' && effect ? effect : 'it';
  const crossed = curves.filter(({ crossing }) => crossing !== null);
  const early = curves.filter((curve) => curve.crossing === null && knownShare(firstOf(curve))! >= power);
  const never = curves.filter((curve) => !crossed.includes(curve) && !early.includes(curve));
  const lastWords = (curve: Curve) => `${percent(knownShare(lastOf(curve))!)} by ${curve.short}`;
  return [
    ...(crossed.length > 0
      ? [
          { text: `${wanted} of samples notice ${what} from ` },
          { text: crossingsWords(result), strong: true, code: 'figure' } as const,
          { text: ' on. ' },
        ]
      : []),
    ...(early.length > 0
      ? [
          {
            text: `${wanted} and more by ${listed(early.map(({ short }) => short))} already at ${placeWords(firstOf(early[0]!).value, along, unit)}. `,
          },
        ]
      : []),
    ...(never.length > 0
      ? [
          {
            text: `Not ${wanted} even at ${placeWords(lastOf(never[0]!).value, along, unit)}: ${never.map(lastWords).join(', ')}.`,
          },
        ]
      : []),
  ];
}

/** That a test is said not to keep its level, though it does. */
const DOUBT = 0.05;

/** Where nothing is there to notice: the place at which each errs most. */
function errorWords({ along, alpha, unit }: CurvesResult, curves: readonly Curve[]): Piece[] {
  const all = curves.flatMap(knownPoints);
  const worst = curves.flatMap((curve) => {
    const { short } = curve;
    const known = knownPoints(curve);
    if (known.length === 0) return [];
    const point = known.reduce((most, one) => (knownShare(one)! > knownShare(most)! ? one : most));
    const share = knownShare(point)!;
    // The worst of many is above the level by chance alone, unless each is held to a share of the doubt (Bonferroni).
    const [least] = clopperPearson(point.count, Math.max(1, point.replicates), 1 - DOUBT / all.length);
    const over = point.exact === null ? least > alpha : share > alpha * 1.001;
    return [{ words: `${percent(share)} by ${short} at ${placeWords(point.value, along, unit)}`, over }];
  });
  const level = formatPercent(alpha);
  const over = worst.filter((one) => one.over);
  const kept = worst.filter((one) => !one.over);
  return [
    ...(over.length > 0
      ? [
          { text: `Though nothing is there to notice, p is below the level more often than ${level}: ` },
          { text: over.map(({ words }) => words).join(', '), strong: true, code: 'figure' } as const,
          { text: '. ' },
        ]
      : []),
    ...(kept.length > 0
      ? [{ text: `At most ${kept.map(({ words }) => words).join(', ')}: within what a level of ${level} allows.` }]
      : []),
  ];
}

export function curvesFinding(result: CurvesResult): Piece[] {
  const known = result.curves.filter(({ points }) => points.some((point) => knownShare(point) !== null));
  const errs = known.filter(({ points }) => points.every(({ holds }) => holds));
  const notices = known.filter((curve) => !errs.includes(curve));
  const [noticed, erred] = [powerWords(result, notices), errorWords(result, errs)];
  // Some of the sentences end with the blank before the next.
  const apart = noticed.length > 0 && erred.length > 0 && !noticed.at(-1)!.text.endsWith(' ');
  return [...noticed, ...(apart ? [{ text: ' ' }] : []), ...erred];
}

export function curvesNotes(result: CurvesResult, asked: CurvesRequest): Note[] {
  const notes: Note[] = levelNote(asked.alpha);
  const none = result.curves.flatMap(({ points }) => points).reduce((sum, point) => sum + point.undefined, 0);
  if (none > 0)
    notes.push({
      code: 'undefined',
      text: `${groupThousands(none)} times there was no p, since all readings of a sample were alike: counted as not noticed.`,
    });
  for (const curve of result.curves) {
    const { least, greatest, name } = simulatedTest(curve.test);
    const skipped = curve.points.filter(({ sizes }) => sizes.some((n) => n < least || n > (greatest ?? Infinity)));
    if (skipped.length === 0) continue;
    const range = greatest === undefined ? `at least ${least}` : `${least} to ${greatest}`;
    const where = skipped.map(({ sizes }) => `n = ${groupThousands(sizes[0]!)}`).join(', ');
    notes.push({ code: 'not-there', text: `The ${name} takes ${range} readings: nothing is shown of it at ${where}.` });
  }
  return notes;
}

/** One row a place, one column a test. */
export const curvesColumns = ({ curves }: CurvesResult): string[] => curves.map(({ short }) => short);
export function curvesFigures(result: CurvesResult): FoundFigure[] {
  const { curves, along, unit } = result;
  return (curves[0]?.points ?? []).map(({ value }, i) => ({
    ...{ key: String(i), note: '', formula: '' },
    name:
      along === 'n'
        ? `n\u00a0=\u00a0${groupThousands(value)}`
        : along === 'mixedShare'
          ? formatPercent(value).replace(' ', '\u00a0')
          : formatValue(value),
    meaning: `How often each test has a p below the level at ${placeWords(value, along, unit)}.`,
    texts: curves.map(({ points }) => {
      const share = knownShare(points[i]!);
      return share === null ? '–' : percent(share);
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
